import type { ColumnData } from "../data/column";
import { fromBytes } from "../data/plain-bytes";
import type { PlainIndex } from "../engine/cells/plain-index";
import type { KnownFormula } from "../formula/expr";
import type { ColumnPlace } from "../formula/meeting";
import type { QueryInput, Result } from "../plan/query";
import type { Project } from "../project/schema";

/** The word by which a snapshot is known. */
export const SNAPSHOT_FORMAT = "cavlo-snapshot";
/** The version of snapshots that is written; older ones are brought to it when they are read. */
export const SNAPSHOT_VERSION = 2;

/** Bytes as they stand in a snapshot: deflated (RFC 1951), then as base64; `size` is how many they were. */
export interface PackedBytes {
  size: number;
  deflated: string;
}

/** A board or visuals with what answers them, as one JSON document that needs no server. */
export interface Snapshot {
  format: typeof SNAPSHOT_FORMAT;
  version: typeof SNAPSHOT_VERSION;
  /** When it was made, as ISO 8601 text, and the day that was "today" then. */
  made: string;
  today: string;
  /** What of the project it needs; its one board, or its visuals. */
  project: Project;
  board: string | null;
  /** What its formulas mean, by their keys, so that a page needs no parser to show what is answered. */
  formulas: [string, KnownFormula][];
  /** The answers to all that it asks as it begins. */
  answers: [QueryInput, Result | { error: string }][];
  /** What further questions are answered from: sums by what can be filtered, or rows; null: nothing more. */
  index: PackedBytes | null;
  rows: PackedBytes | null;
  /** The stored columns that a visual reads, by its id: what a page has to give of its own rows. */
  needs: [string, ColumnPlace[]][];
  /** Columns of which nothing travels, though formulas name them. */
  left: string[];
}

/** The rows of a table that travel. */
export interface TravellingTable {
  name: string;
  rows: number;
  columns: { name: string; data: ColumnData }[];
}

/** A file that is no snapshot, or not a whole one; the message says what to do. */
export class SnapshotError extends Error {}

const CUT = "This snapshot is not whole: its end is missing. Take it out again.";

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const isPacked = (value: unknown): boolean =>
  value === null || (isRecord(value) && typeof value.size === "number" && typeof value.deflated === "string");

/** How a snapshot of a version is brought to the next one, by the version that it has. */
const MIGRATIONS: Record<number, (snapshot: Record<string, unknown>) => Record<string, unknown>> = {
  // Version 2: rows have targets of their own. What was taken out before is drawn as it was.
  1: (snapshot) => {
    const project = isRecord(snapshot.project) ? snapshot.project : {};
    const visuals = Array.isArray(project.visuals) ? project.visuals.filter(isRecord) : [];
    const answers = Array.isArray(snapshot.answers) ? snapshot.answers : [];
    return {
      ...snapshot,
      project: { ...project, visuals: visuals.map(againstWhole) },
      answers: answers.map(([query, answer]) => [query, { leftWhole: [], atRest: null, ...answer }]),
    };
  },
};

const ofWhole = (source: unknown) =>
  isRecord(source) && Object.hasOwn(source, "measure") ? { ...source, over: "whole" } : source;

/** A visual whose rows are all held against one value of a measure, as they were in version 1. */
const againstWhole = (visual: Record<string, unknown>): Record<string, unknown> => ({
  ...visual,
  target: ofWhole(visual.target),
  baseline: ofWhole(visual.baseline),
  rules: Array.isArray(visual.rules)
    ? visual.rules.map((rule) => (isRecord(rule) ? { ...rule, than: ofWhole(rule.than) } : rule))
    : [],
});

/**
 * Reads the text of a snapshot, of whatever version. Throws a SnapshotError where it is cut
 * short, is something
 * else, or was written by a later version.
 */
export function readSnapshot(text: string): Snapshot {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new SnapshotError(
      /^\s*\{\s*"format":\s*"cavlo-snapshot"/.test(text)
        ? CUT
        : "This is no snapshot: it is not JSON. Give the address of a .cavlo.json file.",
    );
  }
  return checkedSnapshot(read);
}

/** The same of a snapshot that was parsed already. */
export function checkedSnapshot(read: unknown): Snapshot {
  if (!isRecord(read) || read.format !== SNAPSHOT_FORMAT)
    throw new SnapshotError("This is no snapshot. Give the address of a .cavlo.json file.");
  let snapshot = read;
  for (let version = Number(snapshot.version); version !== SNAPSHOT_VERSION; version++) {
    const migrate = Object.hasOwn(MIGRATIONS, version) ? MIGRATIONS[version] : undefined;
    if (!migrate)
      throw new SnapshotError(
        `This snapshot is of version ${String(snapshot.version)}, which these modules do not know. Take the newer modules, or take the snapshot out again.`,
      );
    snapshot = { ...migrate(snapshot), version: version + 1 };
  }
  const { project, formulas, answers, index, rows, needs, left } = snapshot;
  const isWhole =
    isRecord(project) &&
    ["tables", "links", "measures", "inputs", "visuals", "boards"].every((k) => Array.isArray(project[k])) &&
    Array.isArray(formulas) &&
    Array.isArray(answers) &&
    isPacked(index) &&
    isPacked(rows) &&
    Array.isArray(needs) &&
    Array.isArray(left);
  if (!isWhole) throw new SnapshotError("This snapshot is damaged: a part is missing. Take it out again.");
  return snapshot as unknown as Snapshot;
}

/** The bytes of a text of base64. */
function bytesOf(base64: string): Uint8Array<ArrayBuffer> {
  const text = atob(base64);
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/**
 * What packed bytes hold, by the platform's own inflating. Throws a SnapshotError where they are damaged or
 * cut short.
 */
async function unpacked(packed: PackedBytes): Promise<unknown> {
  try {
    const inflated = new Blob([bytesOf(packed.deflated)])
      .stream()
      .pipeThrough(new DecompressionStream("deflate-raw"));
    const bytes = new Uint8Array(await new Response(inflated).arrayBuffer());
    if (bytes.length !== packed.size) throw new SnapshotError(CUT);
    return fromBytes(bytes);
  } catch (error) {
    if (error instanceof SnapshotError) throw error;
    throw new SnapshotError(CUT);
  }
}

/** The index of a snapshot. Throws a SnapshotError where it is damaged. */
export const indexIn = async (packed: PackedBytes): Promise<PlainIndex> =>
  (await unpacked(packed)) as PlainIndex;

/** The rows of a snapshot by table. Throws a SnapshotError where they are damaged. */
export const rowsIn = async (packed: PackedBytes): Promise<TravellingTable[]> =>
  (await unpacked(packed)) as TravellingTable[];
