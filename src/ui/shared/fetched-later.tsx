"use client";
import { type ComponentType, type ReactNode, useEffect, useState } from "react";
import { onServerBack } from "./connection";

/** A component whose script is fetched when it is first shown. */
export interface Later<P> {
  fetch: () => Promise<ComponentType<P>>;
  /** The component, once it is here. */
  known: ComponentType<P> | null;
}

/** Names a component that is fetched later; once for each window. */
export const later = <P,>(fetch: () => Promise<ComponentType<P>>): Later<P> => ({ fetch, known: null });

/**
 * Shows a component that is fetched later, with its props. Where the server is away just then, that is said
 * in its place, and it is fetched when the server is back.
 */
export function Fetched<P extends object>({
  of,
  with: props,
  waiting = <span className="block p-4 text-sm text-muted">Opening …</span>,
}: {
  of: Later<P>;
  with: P;
  waiting?: ReactNode;
}) {
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
        () => !gone && setFailed(true),
      );
    void take();
    const deaf = onServerBack(() => void take());
    return () => {
      gone = true;
      deaf();
    };
  }, [isThere, of]);
  if (Shown) return <Shown {...props} />;
  if (!failed) return waiting;
  return (
    <span role="status" className="block p-4 text-sm text-muted">
      This was not fetched yet, and Cavlo's server does not answer. It opens when the server is back.
    </span>
  );
}
