"use client";
import { Component, type ReactNode } from "react";

/** Shows what went wrong in a part of a screen, so that the rest stays usable. */
export class ProblemBoundary extends Component<{ children: ReactNode }, { problem: string | null }> {
  state = { problem: null };
  static getDerivedStateFromError(error: unknown) {
    return { problem: error instanceof Error ? error.message : String(error) };
  }
  render() {
    if (this.state.problem === null) return this.props.children;
    return (
      <div role="alert" className="m-6 rounded-md border border-signal bg-signal-tint p-4">
        <p className="font-semibold">This part of the screen stopped.</p>
        <p className="mt-1 text-muted">{this.state.problem}</p>
        <button type="button" className="button mt-3" onClick={() => this.setState({ problem: null })}>
          Show it again
        </button>
      </div>
    );
  }
}
