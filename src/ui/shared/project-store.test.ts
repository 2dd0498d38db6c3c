import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";

import { boardSchema } from "@/core/project/board-schema";
import { newInputControl } from "@/core/project/defaults";
import { edited } from "@/core/project/edits";
import { emptyProject, visualSchema } from "@/core/project/schema";
import { fetchEditWords } from "./edit-words";
import { fetchMerging } from "./merging";
import { createProjectStore } from "./project-store";

const visual = visualSchema.parse({ id: "v", name: "V", kind: "donut" });
const saved = () => ({
  id: "p",
  name: "P",
  revision: 1,
  changedAt: "",
  document: { ...emptyProject("P"), visuals: [visual] },
});

/**
 * A stand-in for the network, not for our own code: it answers saves as the server's
 * documented interface does.
 */
function network(answers: { status: number; body: unknown }[], project = "p") {
  const sent: { revision: number; document: { name: string } }[] = [];
  vi.stubGlobal("fetch", async (path: string, init: RequestInit) => {
    // A store of another test may still try to save.
    if (!path.includes(`/projects/${project}`)) return new Response("{}", { status: 500 });
    sent.push(JSON.parse(String(init.body)));
    const { status, body } = answers.shift() ?? { status: 500, body: {} };
    return new Response(JSON.stringify(body), { status });
  });
  return sent;
}
// Both are fetched in the background.
beforeAll(() => Promise.all([fetchEditWords(), fetchMerging()]));
afterEach(() => vi.unstubAllGlobals());

describe("the editor's store", () => {
  it("takes the newest of two versions that were saved one right after the other elsewhere", async () => {
    const answers = [2, 3].map((revision) => ({ ...saved(), revision, name: `P${revision}` }));
    const waiting: (() => void)[] = [];
    vi.stubGlobal("fetch", async () => {
      const project = answers.shift();
      await new Promise<void>((resolve) => waiting.push(resolve));
      return new Response(JSON.stringify({ project }), { status: 200 });
    });
    const store = createProjectStore(saved());
    for (const revision of [2, 3]) store.getState().hear({ project: "p", type: "saved", revision });
    await vi.waitFor(() => expect(waiting).toHaveLength(2));
    // Each answer comes when the one before was taken.
    waiting[0]();
    await vi.waitFor(() => expect(store.getState().revision).toBe(2));
    waiting[1]();
    await vi.waitFor(() => expect(store.getState().revision).toBe(3));
  });

  it("does not take an edit that makes more of something than a document holds, and says why", () => {
    const told: string[] = [];
    const board = boardSchema.parse({
      id: "b",
      name: "B",
      controls: Array.from({ length: 20 }, (_, i) => ({ id: `c${i}`, type: "input", input: `i${i}` })),
    });
    const full = { ...saved(), document: { ...emptyProject("P"), boards: [board] } };
    const store = createProjectStore(full, undefined, (words) => told.push(words));
    const control = newInputControl({ id: "more", input: "i" });
    expect(store.getState().apply({ type: "add control", board: "b", control })).toBe(false);
    expect(told).toEqual(["A board has at most 20 controls. Remove some first."]);
    expect(store.getState()).toMatchObject({ saveState: "saved", past: [], document: full.document });
    // Everything else goes on.
    expect(store.getState().apply({ type: "rename project", name: "Q" })).toBe(true);
    expect(store.getState().document.name).toBe("Q");
  });

  it("undoes and redoes over the whole document, and a new edit ends the way forward", () => {
    network([]);
    const store = createProjectStore(saved());
    const { apply, undo, redo } = store.getState();
    apply({ type: "rename project", name: "A" });
    apply({ type: "rename project", name: "B" });
    undo();
    expect(store.getState().document.name).toBe("A");
    undo();
    expect(store.getState().document.name).toBe("P");
    undo();
    expect(store.getState().document.name).toBe("P");
    redo();
    redo();
    expect(store.getState().document.name).toBe("B");
    undo();
    apply({ type: "rename project", name: "C" });
    redo();
    expect(store.getState().document.name).toBe("C");
  });

  it("takes the steps of a drag as one, but not those of another dial", () => {
    network([]);
    const store = createProjectStore(saved());
    const { apply, undo } = store.getState();
    for (const value of [50, 45, 40])
      apply({ type: "set dial", id: "v", dial: "arc.hole", value }, "dial v arc.hole");
    for (const value of [10, 20])
      apply({ type: "set dial", id: "v", dial: "arc.start", value }, "dial v arc.start");
    expect(store.getState().document.visuals[0].dials).toEqual({ "arc.hole": 40, "arc.start": 20 });
    undo();
    expect(store.getState().document.visuals[0].dials).toEqual({ "arc.hole": 40 });
    undo();
    expect(store.getState().document.visuals[0].dials).toEqual({});
  });

  it("an edit that changes nothing is no step", () => {
    const store = createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: store.getState().document.name });
    expect(store.getState().past).toHaveLength(0);
    expect(store.getState().saveState).toBe("saved");
  });

  it("saves from the revision it has, and takes the new one", async () => {
    const sent = network([
      { status: 200, body: { project: { revision: 2 } } },
      { status: 200, body: { project: { revision: 3 } } },
    ]);
    const store = createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: "A" });
    await store.getState().flush();
    store.getState().apply({ type: "rename project", name: "B" });
    await store.getState().flush();
    expect(sent.map((s) => [s.revision, s.document.name])).toEqual([
      [1, "A"],
      [2, "B"],
    ]);
    expect(store.getState()).toMatchObject({ saveState: "saved", revision: 3 });
  });

  it("falls behind without overwriting, keeps its own version, and takes the newer one when told", async () => {
    const newer = { ...saved(), revision: 7, document: emptyProject("Theirs") };
    const sent = network([
      { status: 409, body: { error: { code: "newer", message: "changed" }, project: newer } },
    ]);
    const store = createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: "Mine" });
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "behind", document: { name: "Mine" } });
    await store.getState().flush();
    expect(sent).toHaveLength(1);
    store.getState().takeNewer();
    expect(store.getState()).toMatchObject({ saveState: "saved", revision: 7, document: { name: "Theirs" } });
  });

  it("tries again by itself while the server is away, says since when, keeps what is not saved, and forgets it once it is", async () => {
    vi.useFakeTimers();
    const kept: string[] = [];
    const keeper = {
      keep: async (_: string, document: { name: string }) => kept.push(document.name) > 0,
      forget: async () => void kept.push("forgotten"),
    };
    network([
      { status: 503, body: { error: { code: "folder_gone", message: "The folder is gone." } } },
      { status: 507, body: { error: { code: "disk_full", message: "The disk is full." } } },
      { status: 200, body: { project: { revision: 2 } } },
    ]);
    const store = createProjectStore(saved(), keeper);
    store.getState().apply({ type: "rename project", name: "A" });
    await vi.advanceTimersByTimeAsync(450);
    expect(store.getState()).toMatchObject({ saveState: "waiting", saveProblem: "The folder is gone." });
    expect(store.getState().unsavedSince).not.toBeNull();
    expect(kept).toEqual(["A"]);
    expect(store.getState().isKept).toBe(true);
    // An edit in between waits with the rest.
    store.getState().apply({ type: "rename project", name: "B" });
    expect(store.getState().saveState).toBe("waiting");
    await vi.advanceTimersByTimeAsync(1000);
    expect(store.getState().saveProblem).toBe("The disk is full.");
    await vi.advanceTimersByTimeAsync(2000);
    expect(store.getState()).toMatchObject({
      saveState: "saved",
      saveProblem: null,
      unsavedSince: null,
      revision: 2,
    });
    expect(kept).toEqual(["A", "B", "forgotten"]);
    vi.useRealTimers();
  });

  it("does not claim to have kept what the browser did not take", async () => {
    vi.useFakeTimers();
    network([]);
    const store = createProjectStore(saved(), { keep: async () => false, forget: async () => {} });
    store.getState().apply({ type: "rename project", name: "A" });
    await vi.advanceTimersByTimeAsync(450);
    expect(store.getState()).toMatchObject({ saveState: "waiting", isKept: false });
    vi.useRealTimers();
  });

  it("does not try again what cannot be saved as it is, and saves when it is mended", async () => {
    const sent = network([
      {
        status: 400,
        body: { error: { code: "bad_document", message: "measures 1, name: A name is needed." } },
      },
      { status: 200, body: { project: { revision: 2 } } },
    ]);
    const store = createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: "A" });
    await store.getState().flush();
    expect(store.getState()).toMatchObject({
      saveState: "refused",
      saveProblem: "measures 1, name: A name is needed.",
    });
    expect(sent).toHaveLength(1);
    store.getState().apply({ type: "rename project", name: "B" });
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "saved", saveProblem: null });
  });

  it("hears that the project was saved, deleted or brought back elsewhere", async () => {
    const theirs = { ...saved(), revision: 4, document: emptyProject("Theirs") };
    vi.stubGlobal("fetch", async () => new Response(JSON.stringify({ project: theirs })));
    const store = createProjectStore(saved());
    store.getState().hear({ type: "saved", project: "other", revision: 9 });
    store.getState().hear({ type: "saved", project: "p", revision: 1 });
    expect(store.getState().document.name).toBe("P");
    store.getState().hear({ type: "saved", project: "p", revision: 4 });
    await vi.waitFor(() =>
      expect(store.getState()).toMatchObject({ revision: 4, document: { name: "Theirs" } }),
    );
    store.getState().apply({ type: "rename project", name: "Mine" });
    Object.assign(theirs, { revision: 5, document: emptyProject("Theirs again") });
    store.getState().hear({ type: "saved", project: "p", revision: 5 });
    await vi.waitFor(() =>
      expect(store.getState()).toMatchObject({
        saveState: "behind",
        document: { name: "Mine" },
        newer: { revision: 5 },
      }),
    );
    store.getState().hear({ type: "deleted", project: "p" });
    expect(store.getState()).toMatchObject({ saveState: "deleted", document: { name: "Mine" } });
    await store.getState().flush();
    expect(store.getState().saveState).toBe("deleted");
  });

  it("takes another window's save into what it has where the two go together, and still undoes its own", async () => {
    const theirs = { ...saved(), revision: 2 };
    theirs.document = edited(theirs.document, { type: "rename project", name: "Theirs" });
    const sent = network(
      [
        { status: 409, body: { error: { code: "newer", message: "" }, project: theirs } },
        { status: 200, body: { project: { revision: 3 } } },
        { status: 200, body: { project: { revision: 4 } } },
      ],
      "q",
    );
    const store = createProjectStore({ ...saved(), id: "q" });
    store.getState().apply({ type: "set dial", id: "v", dial: "arc.hole", value: 44 });
    await store.getState().flush();
    await vi.waitFor(() => expect(store.getState().saveState).toBe("saved"));
    expect(sent[1]).toMatchObject({
      revision: 2,
      document: { name: "Theirs", visuals: [{ dials: { "arc.hole": 44 } }] },
    });
    store.getState().undo();
    expect(store.getState().document).toMatchObject({ name: "Theirs", visuals: [{ dials: {} }] });
    store.getState().redo();
    expect(store.getState().document.visuals[0].dials["arc.hole"]).toBe(44);
  });

  it("saves nothing where both changed the same until one of the two is chosen", async () => {
    const theirs = { ...saved(), revision: 2 };
    theirs.document = edited(theirs.document, { type: "rename project", name: "Theirs" });
    const sent = network(
      [
        { status: 409, body: { error: { code: "newer", message: "" }, project: theirs } },
        { status: 200, body: { project: { revision: 3 } } },
      ],
      "q",
    );
    const store = createProjectStore({ ...saved(), id: "q" });
    store.getState().apply({ type: "set dial", id: "v", dial: "arc.hole", value: 44 });
    store.getState().apply({ type: "rename project", name: "Mine" });
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "behind", document: { name: "Mine" } });
    expect(store.getState().conflicts).toHaveLength(1);
    store.getState().settle(() => false);
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "saved", revision: 3, conflicts: [], newer: null });
    expect(sent[1]).toMatchObject({
      revision: 2,
      document: { name: "Theirs", visuals: [{ dials: { "arc.hole": 44 } }] },
    });
  });

  it("says so where an edit can't be undone because another window changed the same, and goes on with the one before", async () => {
    const theirs = { ...saved(), revision: 3 };
    theirs.document = edited(
      edited(theirs.document, { type: "set dial", id: "v", dial: "arc.hole", value: 55 }),
      { type: "rename project", name: "Mine" },
    );
    vi.stubGlobal("fetch", async () => new Response(JSON.stringify({ project: { ...theirs } })));
    const told: string[] = [];
    const store = createProjectStore(saved(), undefined, (words) => told.push(words));
    store.getState().apply({ type: "rename project", name: "Mine" });
    store.getState().apply({ type: "set dial", id: "v", dial: "arc.hole", value: 44 });
    store.setState({ saveState: "saved" });
    await store.getState().look();
    const taken = store.getState().document;
    store.getState().undo();
    expect(told).toEqual([expect.stringContaining("Hole 62 % → 44 %, V")]);
    expect(store.getState().document).toBe(taken);
    store.getState().undo();
    expect(store.getState().document).toMatchObject({ name: "P", visuals: [{ dials: { "arc.hole": 55 } }] });
    expect(told).toHaveLength(1);
  });

  it("undoes what was done before its page was loaded again", () => {
    const first = createProjectStore(saved());
    first.getState().apply({ type: "rename project", name: "A" });
    first.getState().apply({ type: "rename project", name: "B" });
    first.getState().undo();
    const { document, past, future } = structuredClone(
      (({ document, past, future }) => ({ document, past, future }))(first.getState()),
    );
    const again = createProjectStore({ ...saved(), document });
    again.getState().restore({ past, future });
    again.getState().redo();
    expect(again.getState().document.name).toBe("B");
    again.getState().undo();
    again.getState().undo();
    expect(again.getState().document.name).toBe("P");
  });

  it("knows that the project is gone, whatever a save says that began before", async () => {
    let answer = (_: Response) => {};
    vi.stubGlobal("fetch", () => new Promise<Response>((resolve) => (answer = resolve)));
    const store = createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: "A" });
    const first = store.getState().flush();
    store.getState().hear({ type: "deleted", project: "p" });
    answer(new Response(JSON.stringify({ project: { revision: 2 } })));
    await first;
    expect(store.getState()).toMatchObject({ saveState: "deleted", revision: 2 });
    // And that it is there again, although a save of before says that it is gone.
    store.getState().hear({ type: "brought back", project: "p", revision: 1 });
    await vi.waitFor(() => expect(store.getState().saveState).toBe("saving"));
    store.getState().hear({ type: "deleted", project: "p" });
    store.getState().hear({ type: "brought back", project: "p", revision: 1 });
    answer(new Response(JSON.stringify({ error: { code: "none", message: "Gone." } }), { status: 404 }));
    await vi.waitFor(() => expect(store.getState().saveState).toBe("saving"));
    answer(new Response(JSON.stringify({ project: { revision: 3 } })));
    await vi.waitFor(() => expect(store.getState()).toMatchObject({ saveState: "saved", revision: 3 }));
  });

  it("knows that the project is gone when nobody told and it looks again", async () => {
    vi.stubGlobal(
      "fetch",
      async () =>
        new Response(JSON.stringify({ error: { code: "none", message: "Gone." } }), { status: 404 }),
    );
    const store = createProjectStore(saved());
    await expect(store.getState().look()).rejects.toThrow("Gone.");
    expect(store.getState().saveState).toBe("deleted");
  });

  it("goes on without what comes in the background, and has the words and the undo of an edit when it is here", async () => {
    vi.resetModules();
    const fresh = await import("./project-store");
    const store = fresh.createProjectStore(saved());
    store.getState().apply({ type: "rename project", name: "A" });
    expect(store.getState().past).toMatchObject([{ words: "The last change" }]);
    await vi.waitFor(() => expect(store.getState().past).toMatchObject([{ words: "Project “P” → “A”" }]));
    // After a reload others may have changed it: what is known of that has not come yet.
    const { document, past, future } = store.getState();
    const again = fresh.createProjectStore({ ...saved(), document });
    again.getState().restore({ past, future });
    again.getState().undo();
    await vi.waitFor(() => expect(again.getState().document.name).toBe("P"));
  });
});
