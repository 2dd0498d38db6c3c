"use client";
import { usePathname } from "next/navigation";
import { type ComponentType, useEffect, useState } from "react";
import { onServerBack } from "./connection";
import { fetchEditWords } from "./edit-words";
import { useProjectStore } from "./project-context";

const LOADERS = {
  data: () => import("../data/data-screen").then((m) => m.DataScreen),
  measures: () => import("../measures/measures-screen").then((m) => m.MeasuresScreen),
  visuals: () => import("../bench/visuals-screen").then((m) => m.VisualsScreen),
  boards: () => import("../boards/boards-screen").then((m) => m.BoardsScreen),
  "hand-off": () => import("../handoff/hand-off-screen").then((m) => m.HandOffScreen),
  "contact-sheet": () => import("../contact-sheet/contact-sheet").then((m) => m.ContactSheet),
};
type Step = keyof typeof LOADERS;

/** The screens that this window has fetched. */
const fetched = new Map<Step, ComponentType>();

async function fetchScreen(step: Step): Promise<ComponentType> {
  const screen = fetched.get(step) ?? (await LOADERS[step]());
  fetched.set(step, screen);
  return screen;
}

/** The step that an address names. */
const stepOf = (path: string) => path.split("/")[3] ?? "";

// The screen that the window opens with is under way before the page around it stands.
if (typeof window !== "undefined") {
  const first = stepOf(window.location.pathname);
  if (Object.hasOwn(LOADERS, first)) void fetchScreen(first as Step).catch(() => {});
}

/** The other screens are fetched so long after the first one stands, in milliseconds. */
const FETCH_AFTER = 2000;

/** A screen that was not fetched before: it is fetched now, or when the server is back. */
function FetchedScreen({ step }: { step: Step }) {
  const store = useProjectStore();
  const [Screen, setScreen] = useState<ComponentType | null>(() => fetched.get(step) ?? null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let gone = false;
    const take = async (again: boolean) => {
      try {
        const screen = await fetchScreen(step);
        if (!gone) setScreen(() => screen);
      } catch {
        if (gone) return;
        setFailed(true);
        // A browser may remember that a file could not be had; where nothing would be lost, a fresh page
        // forgets it.
        if (again && store.getState().saveState === "saved") window.location.reload();
      }
    };
    void take(false);
    const deaf = onServerBack(() => void take(true));
    return () => {
      gone = true;
      deaf();
    };
  }, [step, store]);
  if (Screen) return <Screen />;
  return (
    <p className="p-6 text-muted">
      {failed
        ? "This step was not fetched yet, and Cavlo's server does not answer. It opens when the server is back."
        : "Opening …"}
    </p>
  );
}

/**
 * The screen of the step that the address names. Whoever edits gets the other screens in the background, so
 * that steps open while the server is away.
 */
export function ProjectScreens({ presents }: { presents: boolean }) {
  const step = stepOf(usePathname());
  useEffect(() => {
    if (presents) return;
    const timer = setTimeout(() => {
      for (const other of Object.keys(LOADERS) as Step[]) void fetchScreen(other).catch(() => {});
      void fetchEditWords().catch(() => {});
    }, FETCH_AFTER);
    return () => clearTimeout(timer);
  }, [presents]);
  if (!Object.hasOwn(LOADERS, step))
    return <p className="p-6 text-muted">There is no such step. Choose one above.</p>;
  return <FetchedScreen key={step} step={step as Step} />;
}
