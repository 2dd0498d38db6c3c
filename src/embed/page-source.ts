import type { QueryInput } from "@/core/plan/query";
import type { Answer, AnswerSource } from "@/present/answers";
import { askEngine } from "./engine-host";
import type { EngineAnswer, Held, RowsNote } from "./engine-protocol";

let ids = 0;

/** From where an element has its answers: what the engine in the page holds for it. */
export class PageSource {
  private id = 0;
  private holding: Promise<EngineAnswer> | null = null;
  private isClosed = false;

  constructor(private readonly held: Held) {}

  /** Gives the engine what it answers from. Gives what it says of the rows. */
  async hold(): Promise<{ notes: RowsNote[] } | Extract<EngineAnswer, { error: unknown }>> {
    this.id = ++ids;
    this.holding = askEngine({ type: "hold", id: this.id, held: this.held });
    const answer = await this.holding;
    return "notes" in answer || "error" in answer ? answer : { notes: [] };
  }

  /** Answers queries; what cannot be answered is an answer too. */
  readonly answer: AnswerSource = async (queries, signal) => {
    const first = await this.asked(queries);
    // A worker that ended has lost what it held.
    const again = "error" in first && first.error.code === "engine" && !signal.aborted && !this.isClosed;
    if (again) this.holding = null;
    const answer = again ? await this.asked(queries) : first;
    if ("answers" in answer) return answer.answers;
    const error = "error" in answer ? answer.error.message : "There is no answer.";
    return queries.map((): Answer => ({ error }));
  };

  private async asked(queries: QueryInput[]): Promise<EngineAnswer> {
    if (!this.holding) await this.hold();
    const held = await this.holding;
    if (held && "error" in held) return held;
    return askEngine({ type: "answer", id: this.id, queries });
  }

  close(): void {
    this.isClosed = true;
    if (this.id > 0) void askEngine({ type: "drop", id: this.id });
  }
}
