"use client";
import { lazy, Suspense, useEffect } from "react";
import type { ExternalToast } from "sonner";
import { create } from "zustand";

const useNotices = create(() => ({ wanted: false }));
let ready = () => {};
const mounted = new Promise<void>((resolve) => {
  ready = resolve;
});
const Toaster = lazy(() => import("sonner").then((m) => ({ default: m.Toaster })));

/** Says when the notices can be shown. */
function Mounted() {
  useEffect(() => ready(), []);
  return null;
}

async function show(error: boolean, text: string, options?: ExternalToast): Promise<void> {
  useNotices.setState({ wanted: true });
  const { toast: tell } = await import("sonner");
  await mounted;
  if (error) tell.error(text, options);
  else tell(text, options);
}

/** Shows a passing notice at the foot of the window. What draws it is only fetched for the first one. */
export const toast = Object.assign(
  (text: string, options?: ExternalToast) => void show(false, text, options),
  {
    error: (text: string, options?: ExternalToast) => void show(true, text, options),
  },
);

/** Where notices stand. */
export function Notices() {
  const wanted = useNotices((s) => s.wanted);
  if (!wanted) return null;
  return (
    <Suspense>
      <Toaster
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
    </Suspense>
  );
}
