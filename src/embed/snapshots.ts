import { checkedSnapshot, readSnapshot, type Snapshot, SnapshotError } from "@/core/snapshot/snapshot";
import { EmbedError } from "./embed-error";

const loaded = new Map<string, Promise<Snapshot>>();

/** What reading it says is what the page is told. */
function told<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw error instanceof SnapshotError ? new EmbedError("snapshot", error.message) : error;
  }
}

async function fetched(address: string): Promise<Snapshot> {
  const response = await fetch(address).catch(() => null);
  if (!response?.ok)
    throw new EmbedError(
      "snapshot",
      `The snapshot ${address} cannot be had${response ? ` (status ${response.status})` : ""}. Put it there, or mend src.`,
    );
  const text = await response.text();
  return told(() => readSnapshot(text));
}

const read = new WeakMap<object, { text: string; snapshot: Snapshot }>();

/** What a text holds, read once for whoever has it: the same text is the same snapshot to them. */
function readOnce(owner: object, text: string): Snapshot {
  const before = read.get(owner);
  if (before?.text === text) return before.snapshot;
  const snapshot = told(() => readSnapshot(text));
  read.set(owner, { text, snapshot });
  return snapshot;
}

/** The snapshot at an address, or in an element of the page (`#id`); each address is fetched once. */
export async function snapshotAt(src: string, page: Document | ShadowRoot): Promise<Snapshot> {
  if (src.startsWith("#")) {
    const held = page.getElementById(src.slice(1)) ?? document.getElementById(src.slice(1));
    if (!held)
      throw new EmbedError("snapshot", `There is no element ${src} in the page that holds a snapshot.`);
    return readOnce(held, held.textContent ?? "");
  }
  const address = new URL(src, document.baseURI).href;
  const before = loaded.get(address);
  const loading = before ?? fetched(address);
  loaded.set(address, loading);
  // What failed may be there later.
  if (!before) loading.catch(() => loaded.delete(address));
  return loading;
}

/** A snapshot that a page gave an element itself, as text or as it was parsed. */
export const snapshotOf = (given: unknown, owner: object): Snapshot =>
  typeof given === "string" ? readOnce(owner, given) : told(() => checkedSnapshot(given));
