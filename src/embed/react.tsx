import type { CSSProperties, ReactElement, ReactNode, Ref } from "react";
import { createElement, useEffect, useImperativeHandle, useRef } from "react";
import type {
  CavloBoardElement,
  CavloChange,
  CavloElement,
  CavloFilters,
  CavloHover,
  CavloPick,
  CavloProblem,
  CavloReady,
  CavloRows,
  CavloValue,
  CavloVisualElement,
} from "./public";

/** What both components take; what is left out stands as the element has it. */
export interface CavloProps<E extends CavloElement> {
  src?: string;
  snapshot?: unknown;
  filters?: CavloFilters | null;
  inputs?: Record<string, CavloValue> | null;
  rows?: CavloRows | null;
  theme?: "light" | "night" | "auto";
  locale?: string;
  motion?: "auto" | "none";
  family?: string;
  onReady?: (ready: CavloReady) => void;
  onPick?: (pick: CavloPick) => void;
  onHover?: (hover: CavloHover) => void;
  onChange?: (change: CavloChange) => void;
  onError?: (problem: CavloProblem) => void;
  ref?: Ref<E>;
  className?: string;
  style?: CSSProperties;
  /** What stands there before the element is alive: the picture that the server made. */
  children?: ReactNode;
}

const PROPERTIES = [
  "src",
  "snapshot",
  "filters",
  "inputs",
  "rows",
  "theme",
  "locale",
  "motion",
  "family",
] as const;

function useElement<E extends CavloElement>(
  tag: "cavlo-visual" | "cavlo-board",
  props: CavloProps<E>,
  wanted: Record<string, string | undefined>,
): ReactElement {
  const element = useRef<E>(null);
  const latest = useRef(props);
  latest.current = props;
  useImperativeHandle(props.ref, () => element.current as E);
  useEffect(() => {
    // Only a page has elements: on a server there is the picture alone.
    void (tag === "cavlo-visual" ? import("./cavlo.js" as string) : import("./cavlo-board.js" as string));
    const host = element.current;
    if (!host) return;
    const heard: [string, (event: Event) => void][] = (
      [
        ["ready", "onReady"],
        ["pick", "onPick"],
        ["hover", "onHover"],
        ["change", "onChange"],
        ["error", "onError"],
      ] as const
    ).map(([type, name]) => [
      type,
      (event) => {
        if (event.target === host)
          (latest.current[name] as ((detail: unknown) => void) | undefined)?.((event as CustomEvent).detail);
      },
    ]);
    for (const [type, listener] of heard) host.addEventListener(type, listener);
    return () => {
      for (const [type, listener] of heard) host.removeEventListener(type, listener);
    };
  }, [tag]);
  // What differs from the last drawing is handed over, and nothing else.
  const handed = useRef<Record<string, unknown>>({});
  useEffect(() => {
    const host = element.current as unknown as Record<string, unknown> | null;
    const now: Record<string, unknown> = {
      ...Object.fromEntries(PROPERTIES.map((n) => [n, props[n]])),
      ...wanted,
    };
    for (const [name, value] of Object.entries(now))
      if (host && value !== undefined && value !== handed.current[name]) host[name] = value;
    handed.current = now;
  });
  const { className, style, children } = props;
  return createElement(tag, { ref: element, class: className, style }, children);
}

/** `<cavlo-visual>` as a component of React. */
export function CavloVisual({
  visual,
  ...props
}: CavloProps<CavloVisualElement> & { visual?: string }): ReactElement {
  return useElement("cavlo-visual", props, { visual });
}

/** `<cavlo-board>` as a component of React. */
export function CavloBoard({
  board,
  ...props
}: CavloProps<CavloBoardElement> & { board?: string }): ReactElement {
  return useElement("cavlo-board", props, { board });
}
