"use client";
import dynamic from "next/dynamic";
import { usePathname } from "next/navigation";
import { type ComponentType, useEffect } from "react";

const LOADERS = {
  data: () => import("../data/data-screen").then((m) => m.DataScreen),
  measures: () => import("../measures/measures-screen").then((m) => m.MeasuresScreen),
  visuals: () => import("../bench/visuals-screen").then((m) => m.VisualsScreen),
  boards: () => import("../boards/boards-screen").then((m) => m.BoardsScreen),
  "hand-off": () => import("../handoff/hand-off-screen").then((m) => m.HandOffScreen),
  "contact-sheet": () => import("../contact-sheet/contact-sheet").then((m) => m.ContactSheet),
};
type Step = keyof typeof LOADERS;

const Waiting = () => <p className="p-6 text-muted">Opening …</p>;
const SCREENS: Record<Step, ComponentType> = {
  data: dynamic(LOADERS.data, { ssr: false, loading: Waiting }),
  measures: dynamic(LOADERS.measures, { ssr: false, loading: Waiting }),
  visuals: dynamic(LOADERS.visuals, { ssr: false, loading: Waiting }),
  boards: dynamic(LOADERS.boards, { ssr: false, loading: Waiting }),
  "hand-off": dynamic(LOADERS["hand-off"], { ssr: false, loading: Waiting }),
  "contact-sheet": dynamic(LOADERS["contact-sheet"], { ssr: false, loading: Waiting }),
};

/** The other screens are fetched once the first one stands, in milliseconds. */
const FETCH_AFTER = 4000;

/** The screen of the step that the address names. Whoever edits gets the other screens in the background, so that steps open while the server is away. */
export function ProjectScreens({ presents }: { presents: boolean }) {
  const step = usePathname().split("/")[3];
  useEffect(() => {
    if (presents) return;
    const timer = setTimeout(() => {
      for (const load of Object.values(LOADERS)) void load().catch(() => {});
    }, FETCH_AFTER);
    return () => clearTimeout(timer);
  }, [presents]);
  if (!Object.hasOwn(SCREENS, step)) return <p className="p-6 text-muted">There is no such step. Choose one above.</p>;
  const Screen = SCREENS[step as Step];
  return <Screen />;
}
