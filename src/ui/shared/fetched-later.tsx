"use client";
import { type ComponentType, type FunctionComponent, useEffect, useState } from "react";
import { onServerBack } from "./connection";
import { toast } from "./notice";

const AWAY =
  "This was not fetched yet, and Cavlo's server does not answer. It opens when the server is back.";

interface Until<P> {
  /** What stands in its place while it is under way. */
  waiting: FunctionComponent<P>;
  /**
   * Where it is told that the server is away: in its place, in a passing notice (for what has no place of its
   * own, as a dialog), or nowhere (for what nobody asked for).
   */
  away: "place" | "notice" | "nowhere";
  /** So many milliseconds after its place stands it is fetched; what stands there meanwhile can be used. */
  after: number;
}

interface Source<P> extends Until<P> {
  fetch: () => Promise<ComponentType<P>>;
  /** The component, once it is here. */
  known: ComponentType<P> | null;
}

const HERE: Until<object> = {
  waiting: () => <span className="block p-4 text-sm text-muted">Opening …</span>,
  away: "place",
  after: 0,
};
/** For what opens over the page: nothing stands in its place until it is there. */
export const OVER = { waiting: () => null, away: "notice" } as const;
/** For what nobody has asked for in words. */
export const UNASKED = { waiting: () => null, away: "nowhere" } as const;

function Fetched<P extends object>({ of, with: props }: { of: Source<P>; with: P }) {
  const [Shown, setShown] = useState<ComponentType<P> | null>(() => of.known);
  const [failed, setFailed] = useState(false);
  const isThere = Shown !== null;
  useEffect(() => {
    if (isThere) return;
    let gone = false;
    const take = () =>
      of.fetch().then(
        (component) => {
          of.known = component;
          if (!gone) setShown(() => component);
        },
        () => {
          if (gone) return;
          setFailed(true);
          if (of.away === "notice") toast.error(AWAY);
        },
      );
    const timer = of.after > 0 ? setTimeout(take, of.after) : void take();
    const deaf = onServerBack(() => void take());
    return () => {
      gone = true;
      clearTimeout(timer);
      deaf();
    };
  }, [isThere, of]);
  const Waiting = of.waiting;
  if (Shown) return <Shown {...props} />;
  if (!failed || of.away !== "place") return <Waiting {...props} />;
  return (
    <span role="status" className="block p-4 text-sm text-muted">
      {AWAY}
    </span>
  );
}

/**
 * A component whose script is fetched when it is first shown, once for a window. Where the server is away
 * just then, that is told, and it is fetched when the server is back. Without Suspense, which holds back for
 * 300 ms what was waited for.
 */
export function later<P extends object>(
  fetch: () => Promise<ComponentType<P>>,
  until: Partial<Until<P>> = {},
): ComponentType<P> {
  const source: Source<P> = { ...HERE, ...until, fetch, known: null };
  return (props: P) => <Fetched of={source} with={props} />;
}
