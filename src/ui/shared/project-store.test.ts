import { afterEach, describe, expect, it, vi } from "vitest";
import { renameProject, setDial } from "@/core/project/edits";
import { emptyProject, visualSchema } from "@/core/project/schema";
import { createProjectStore } from "./project-store";

const visual = visualSchema.parse({ id: "v", name: "V", kind: "donut" });
const saved = () => ({ id: "p", name: "P", revision: 1, changedAt: "", document: { ...emptyProject("P"), visuals: [visual] } });

/** A stand-in for the network, not for our own code: it answers saves as the server's documented interface does. */
function network(answers: { status: number; body: unknown }[]) {
  const sent: { revision: number; document: { name: string } }[] = [];
  vi.stubGlobal("fetch", async (_path: string, init: RequestInit) => {
    sent.push(JSON.parse(String(init.body)));
    const { status, body } = answers.shift() ?? { status: 500, body: {} };
    return new Response(JSON.stringify(body), { status });
  });
  return sent;
}
afterEach(() => vi.unstubAllGlobals());

describe("the editor's store", () => {
  it("undoes and redoes over the whole document, and a new edit ends the way forward", () => {
    network([]);
    const store = createProjectStore(saved());
    const { apply, undo, redo } = store.getState();
    apply(renameProject("A"));
    apply(renameProject("B"));
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
    apply(renameProject("C"));
    redo();
    expect(store.getState().document.name).toBe("C");
  });

  it("takes the steps of a drag as one, but not those of another dial", () => {
    network([]);
    const store = createProjectStore(saved());
    const { apply, undo } = store.getState();
    for (const value of [50, 45, 40]) apply(setDial("v", "arc.hole", value), "dial v arc.hole");
    for (const value of [10, 20]) apply(setDial("v", "arc.start", value), "dial v arc.start");
    expect(store.getState().document.visuals[0].dials).toEqual({ "arc.hole": 40, "arc.start": 20 });
    undo();
    expect(store.getState().document.visuals[0].dials).toEqual({ "arc.hole": 40 });
    undo();
    expect(store.getState().document.visuals[0].dials).toEqual({});
  });

  it("an edit that changes nothing is no step", () => {
    const store = createProjectStore(saved());
    store.getState().apply((p) => p);
    expect(store.getState().past).toHaveLength(0);
    expect(store.getState().saveState).toBe("saved");
  });

  it("saves from the revision it has, and takes the new one", async () => {
    const sent = network([
      { status: 200, body: { project: { revision: 2 } } },
      { status: 200, body: { project: { revision: 3 } } },
    ]);
    const store = createProjectStore(saved());
    store.getState().apply(renameProject("A"));
    await store.getState().flush();
    store.getState().apply(renameProject("B"));
    await store.getState().flush();
    expect(sent.map((s) => [s.revision, s.document.name])).toEqual([
      [1, "A"],
      [2, "B"],
    ]);
    expect(store.getState()).toMatchObject({ saveState: "saved", revision: 3 });
  });

  it("falls behind without overwriting, keeps its own version, and takes the newer one when told", async () => {
    const newer = { ...saved(), revision: 7, document: emptyProject("Theirs") };
    const sent = network([{ status: 409, body: { error: { code: "newer", message: "changed" }, project: newer } }]);
    const store = createProjectStore(saved());
    store.getState().apply(renameProject("Mine"));
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "behind", document: { name: "Mine" } });
    await store.getState().flush();
    expect(sent).toHaveLength(1);
    store.getState().takeNewer();
    expect(store.getState()).toMatchObject({ saveState: "saved", revision: 7, document: { name: "Theirs" } });
  });

  it("says why it could not save, and saves when it is tried again", async () => {
    network([
      { status: 500, body: { error: { code: "internal", message: "Something went wrong." } } },
      { status: 200, body: { project: { revision: 2 } } },
    ]);
    const store = createProjectStore(saved());
    store.getState().apply(renameProject("A"));
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "failed", saveProblem: "Something went wrong." });
    await store.getState().flush();
    expect(store.getState()).toMatchObject({ saveState: "saved", saveProblem: null });
  });
});
