"use client";
import { useEffect } from "react";
import type { ExternalToast, Toaster } from "sonner";
import { create } from "zustand";

const useNotices = create<{ shown: typeof Toaster | null }>(() => ({ shown: null }));
let ready = () => {};
const mounted = new Promise<void>((resolve) => {
  ready = resolve;
});

/** Says when the notices can be shown. */
function Mounted() {
  useEffect(() => ready(), []);
  return null;
}

// What draws a notice is fetched a while after the page stands, so that it is there when the server is not.
const fetchNotices = () => import("sonner");
const FETCH_AFTER = 3000;

interface Told extends Omit<ExternalToast, "id" | "onDismiss" | "onAutoClose"> {
  /** The address to which its button leads: there it is done. */
  leadsTo?: string;
  /** What the step of undo changed that it tells: taken back, it tells nothing. */
  step?: unknown;
}

/** The notices that stand, or are about to, by their numbers. */
const standing = new Map<number, Pick<Told, "leadsTo" | "step">>();
let last = 0;

async function show(error: boolean, text: string, { leadsTo, step, ...options }: Told = {}): Promise<void> {
  const id = ++last;
  standing.set(id, { leadsTo, step });
  const { toast: tell, Toaster } = await fetchNotices();
  useNotices.setState({ shown: Toaster });
  await mounted;
  const gone = () => standing.delete(id);
  if (standing.has(id))
    (error ? tell.error : tell)(text, { ...options, id, onDismiss: gone, onAutoClose: gone });
}

/**
 * Takes away the notices that are done: `address` is where somebody is, `steps` are what those of undo changed.
 */
export async function withdrawNotices(address: string, steps: readonly unknown[]): Promise<void> {
  const done = [...standing].filter(
    ([, { leadsTo, step }]) =>
      (leadsTo !== undefined && leadsTo === address) || (step !== undefined && !steps.includes(step)),
  );
  if (done.length === 0) return;
  for (const [id] of done) standing.delete(id);
  const { toast: tell } = await fetchNotices();
  for (const [id] of done) tell.dismiss(id);
}

/** Shows a passing notice at the foot of the window. */
export const toast = Object.assign((text: string, options?: Told) => void show(false, text, options), {
  error: (text: string, options?: Told) => void show(true, text, options),
});

/** Where notices stand. */
export function Notices() {
  const Shown = useNotices((s) => s.shown);
  useEffect(() => {
    const timer = setTimeout(() => void fetchNotices().catch(() => {}), FETCH_AFTER);
    return () => clearTimeout(timer);
  }, []);
  if (!Shown) return null;
  return (
    <>
      <Shown
        position="bottom-center"
        toastOptions={{
          style: {
            fontFamily: "var(--font-sans)",
            background: "var(--sheet)",
            color: "var(--ink)",
            border: "1px solid var(--rule)",
          },
        }}
      />
      <Mounted />
    </>
  );
}
