// What the elements are to a page. The build writes cavlo.d.ts from this file alone, so it imports nothing.

/** A value of a column, an input or an answer. Dates are ISO 8601 text. */
export type CavloValue = string | number | boolean | null;

/** What a filter keeps of a column: values, all but some, what holds a text, or a stretch with both ends. */
export type CavloFilter =
  | CavloValue
  | CavloValue[]
  | { in: CavloValue[] }
  | { not: CavloValue[] }
  | { contains: string }
  | { from?: CavloValue; to?: CavloValue };

/** Filters by column: `route`, `routes.region`, `departed by year`; on a board by the label of a control too. */
export type CavloFilters = Record<string, CavloFilter>;

/** The rows of a table: objects, or an object of columns. */
export type CavloTable =
  | readonly Record<string, unknown>[]
  | Record<string, readonly unknown[] | ArrayLike<number>>;

/** The page's own rows, one set a table. Moments are Date, ISO 8601 text, or milliseconds since 1970 in UTC. */
export type CavloRows = Record<string, CavloTable>;

/** A category that was met, by the visual in which it stands. */
export interface CavloCategory {
  visual: string;
  /** Of which of the two splits it is. */
  side: "split" | "series";
  /** What it is called in the picture. */
  category: string;
  /** The value of its column; null for what is empty, and for what stands for several. */
  value: CavloValue;
}

/** What `ready` tells: what is shown. */
export interface CavloReady {
  name: string;
}
/** What `pick` tells: what was picked just now, and all that is picked after it. */
export interface CavloPick extends CavloCategory {
  picked: CavloCategory[];
}
/** What `hover` tells: what is under the pointer or reached by keys; null where nothing is. */
export interface CavloHover {
  category: CavloCategory | null;
}
/** What `change` tells: the filters and inputs that a reader has set, and that numbers are others now. */
export interface CavloChange {
  filters: Record<string, CavloFilter>;
  inputs: Record<string, CavloValue>;
}
/** What `error` tells. */
export interface CavloProblem {
  code:
    | "snapshot"
    | "not-there"
    | "rows"
    | "missing-table"
    | "missing-column"
    | "wrong-type"
    | "unread-cells"
    | "too-many-rows"
    | "filters"
    | "inputs"
    | "engine";
  message: string;
  table?: string;
  column?: string;
}

/** The events of both elements. */
export interface CavloEvents {
  ready: CustomEvent<CavloReady>;
  pick: CustomEvent<CavloPick>;
  hover: CustomEvent<CavloHover>;
  change: CustomEvent<CavloChange>;
  error: CustomEvent<CavloProblem>;
}

/** The numbers of a visual: a row each, with the values as they were computed. */
export interface CavloNumbers {
  visual: string;
  columns: string[];
  rows: CavloValue[][];
}

/** What both elements have. */
export interface CavloElement extends HTMLElement {
  /** The address of a snapshot, or `#id` of an element of the page that holds one. */
  src: string;
  /** The snapshot itself, as its text or as it was parsed. */
  snapshot: unknown;
  filters: CavloFilters | null;
  inputs: Record<string, CavloValue> | null;
  theme: "light" | "night" | "auto";
  /** A BCP 47 language tag in which numbers and months are written; empty: as the project has it. */
  locale: string;
  /** A family that was registered with `registerFamily`; empty: as the project has it. */
  family: string;
  /** `none`: nothing moves. */
  motion: "auto" | "none";
  rows: CavloRows | null;
  /** What it shows as it stands now; of a board the visuals in their places. */
  toSVG(): string;
  /** The same as a PNG at so many pixels a point. Needs `img-src data:` where the page has a policy. */
  toPNG(scale?: number): Promise<Blob>;
  numbers(): CavloNumbers[];
  addEventListener<K extends keyof CavloEvents>(
    type: K,
    listener: (event: CavloEvents[K]) => void,
    options?: boolean | AddEventListenerOptions,
  ): void;
  addEventListener(
    type: string,
    listener: EventListenerOrEventListenerObject,
    options?: boolean | AddEventListenerOptions,
  ): void;
}

/** `<cavlo-visual>`: one visual. */
export interface CavloVisualElement extends CavloElement {
  /** The id or the name of a visual of the snapshot; empty: its first one. */
  visual: string;
}

/** `<cavlo-board>`: a whole board. */
export interface CavloBoardElement extends CavloElement {
  /** The id or the name of a board of the snapshot; empty: its first one. */
  board: string;
}

declare global {
  interface HTMLElementTagNameMap {
    "cavlo-visual": CavloVisualElement;
    "cavlo-board": CavloBoardElement;
  }
}
