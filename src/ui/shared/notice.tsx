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

async function show(error: boolean, text: string, options?: ExternalToast): Promise<void> {
  const { toast: tell, Toaster } = await fetchNotices();
  useNotices.setState({ shown: Toaster });
  await mounted;
  if (error) tell.error(text, options);
  else tell(text, options);
}

/** Shows a passing notice at the foot of the window. */
export const toast = Object.assign(
  (text: string, options?: ExternalToast) => void show(false, text, options),
  {
    error: (text: string, options?: ExternalToast) => void show(true, text, options),
  },
);

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
