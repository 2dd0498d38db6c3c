import { cleanPicture } from "./picture-file";
import { FORMAT, FORMAT_VERSION } from "./schema";

type Stored = Record<string, unknown>;

const cleaned = (picture: Stored) => ({
  ...picture,
  href: typeof picture?.href === "string" ? (cleanPicture(picture.href) ?? picture.href) : picture?.href,
});

/** A visual whose baseline was a dial, with the phrase that it is now; names of rings have a place. */
function withPhrases(visual: Stored): Stored {
  const dials = visual?.dials as Stored | undefined;
  if (typeof dials !== "object" || dials === null) return visual;
  const { "domain.baseline": baseline = 0, "labels.names": names, ...others } = dials;
  return {
    ...visual,
    dials: {
      ...others,
      ...(names === false && visual.kind === "progress ring" ? { "labels.place": "none" } : {}),
      ...(visual.kind === "nested bars" ? { "bar.holds": "value", "labels.of": "value" } : {}),
    },
    ...(baseline === 0 ? {} : { baseline: { number: baseline } }),
  };
}

/** A filter of a board that began with values, as it begins with any setting now. */
function withSetting(control: Stored): Stored {
  if (control?.type !== "filter") return control;
  const { chosen = [], ...others } = control;
  return { ...others, begins: { in: chosen } };
}
const withSettings = (board: Stored): Stored =>
  Array.isArray(board?.controls) ? { ...board, controls: board.controls.map(withSetting) } : board;

/** So many rows of a board are what one was before version 5. */
const ROWS_A_ROW = 7;

/** A board whose tiles stand in rows as low as they are now; what the rows of its tiles were stays as high. */
function withLowRows(board: Stored): Stored {
  if (!Array.isArray(board?.tiles)) return board;
  const tiles = board.tiles.map((tile: Stored) => {
    const { y, h } = tile ?? {};
    return typeof y === "number" && typeof h === "number"
      ? { ...tile, y: y * ROWS_A_ROW, h: h * ROWS_A_ROW }
      : tile;
  });
  return { ...board, tiles };
}

/** A visual whose rows may have run against one value of a measure: it says what changed until that is settled. */
function toldOfOwnTargets(visual: Stored): Stored {
  const isMeasure = (source: unknown) =>
    typeof source === "object" && source !== null && Object.hasOwn(source, "measure");
  const rules = Array.isArray(visual?.rules) ? visual.rules : [];
  const said = [visual?.target, visual?.baseline, ...rules.map((rule: Stored) => rule?.than)];
  return visual?.split && said.some(isMeasure) ? { ...visual, changed: ["own targets"] } : visual;
}

/** What a formula yields that is no count and no sum: a ratio, or a middle of values. */
const RATIO_OR_AVERAGE = /\/|\b(avg|median|percentile_cont|geometric_mean|stddev_\w+|var_\w+)\s*\(/i;

/**
 * A measure with automatic digits, where a ratio or an average had none. A percent without decimals was set
 * so by somebody: it began with one.
 */
function withDigits(measure: Stored): Stored {
  const format = measure?.format as Stored | undefined;
  const formula = String(measure?.formula ?? "").replace(/'[^']*'/g, "");
  const isBare = format?.decimals === 0 && (format.style === "number" || format.style === "currency");
  return isBare && RATIO_OR_AVERAGE.test(formula)
    ? { ...measure, format: { ...format, decimals: "automatic" } }
    : measure;
}

/** Dials of which the one that told near values apart is a choice of decimals now. */
function withDecimals<T extends Stored>(holder: T): T {
  const dials = holder?.dials as Stored | undefined;
  if (typeof dials !== "object" || dials === null || !("labels.digits" in dials)) return holder;
  const { "labels.digits": digits, ...others } = dials;
  const decimals = digits === true && others["figures.decimals"] === undefined;
  return { ...holder, dials: { ...others, ...(decimals ? { "figures.decimals": "automatic" } : {}) } };
}

const eachOf = (list: unknown, change: (one: Stored) => Stored): unknown =>
  Array.isArray(list) ? list.map(change) : list;

/** Step i brings a document of version i + 1 to version i + 2. Steps are never changed once shipped. */
const STEPS: ((document: Stored) => Stored)[] = [
  // Version 2: readings may have a pattern of one's own, or count from 1970; what was stored before means the
  // same. Pictures are cleaned as they are now.
  (document) => ({
    ...document,
    pictures: Array.isArray(document.pictures) ? document.pictures.map(cleaned) : [],
  }),
  // Version 3: what stems are measured from is a phrase of the sentence; names of rings have places; the
  // inner bar of nested bars holds the value, where the outer one does not.
  (document) => ({
    ...document,
    visuals: Array.isArray(document.visuals) ? document.visuals.map(withPhrases) : document.visuals,
  }),
  // Version 4: filters of boards are set to values, stretches or texts.
  (document) => ({
    ...document,
    boards: Array.isArray(document.boards) ? document.boards.map(withSettings) : document.boards,
  }),
  // Version 5: rows of boards are lower, and free ones stay.
  (document) => ({
    ...document,
    boards: Array.isArray(document.boards) ? document.boards.map(withLowRows) : document.boards,
  }),
  // Version 6: a measure that rows run against, start from or are ruled by is computed for each of them;
  // digits can be automatic, which a dial of labels was for.
  (document) => ({
    ...document,
    measures: eachOf(document.measures, withDigits),
    visuals: eachOf(document.visuals, (visual) => withDecimals(toldOfOwnTargets(visual))),
    finishes: eachOf(document.finishes, withDecimals),
  }),
];

/**
 * Brings a stored document of any earlier version to today's, or says why it cannot be read. It is not yet
 * checked against the schema.
 */
export function migrateDocument(value: unknown): { document: unknown } | { problem: string } {
  const stored = value as Stored | null;
  if (typeof stored !== "object" || stored === null || Array.isArray(stored) || stored.format !== FORMAT)
    return { problem: "This is not the document of a Cavlo project." };
  const { version } = stored;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return { problem: "The document does not say of which version it is." };
  if (version > FORMAT_VERSION)
    return {
      problem: `The document was written by a newer version of Cavlo (its version is ${version}; this one reads up to ${FORMAT_VERSION}). Open it with that version.`,
    };
  const document = STEPS.slice(version - 1).reduce((now, step) => step(now), stored);
  return { document: { ...document, version: FORMAT_VERSION } };
}
