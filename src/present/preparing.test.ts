import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { toBytes } from "@/core/data/plain-bytes";
import { buildCells } from "@/core/engine/cells/build-cells";
import { plainIndex } from "@/core/engine/cells/plain-index";
import { withoutRows } from "@/core/engine/cells/without-rows";
import { runQueries } from "@/core/engine/run";
import type { QueryInput } from "@/core/plan/query";
import { wholeQuery } from "@/core/plan/whole-query";
import { newFilter, newVisual } from "@/core/project/defaults";
import { scopeOf } from "@/core/project/names";
import { boardSchema, type Project } from "@/core/project/schema";
import { UNTOUCHED } from "@/core/view/board-state";
import { madeTile } from "../testing/made-board";
import { TRIPS, tripsProject } from "../testing/made-trips";
import { Answers } from "./answers";
import type { Preparing } from "./cells-source";
import { Preparation } from "./preparing";

const project = tripsProject([
  newVisual({ id: "v", name: "V", kind: "donut", value: "m", split: { column: "route" } }),
]);
const control = newFilter({ id: "c", label: "Class", table: "trips", column: "class" });
const board = boardSchema.parse({ id: "b", name: "B", tiles: [madeTile("on", "v")], controls: [control] });

const TODAY = "2026-05-04";
const catalog = (of: Project) => ({ scope: scopeOf(of), inputs: {}, tables: [TRIPS], today: TODAY });
const NO_LIMITS = { cells: 1e6, bytes: 1e9 };
/** So few that each column has its own, with the others as they are. */
const FEW_CELLS = { cells: 4, bytes: 1e9 };
/** The cells that a server would gather, as it would send them. */
const bytesOf = ({ queries, touched, now }: Preparing, of = project, limits = NO_LIMITS) => {
  const asked = { queries: queries.map(wholeQuery), touched, now };
  return toBytes(withoutRows(plainIndex(buildCells(asked, catalog(of), limits))));
};

const filtered = { type: "set filter" as const, control: "c", setting: { in: ["day"] } };
const turned = { type: "set input", name: "i", value: 1 } as const;
/** What a board asks once its class is filtered. */
const afterwards = { measures: [{ id: "seats" }], filters: [{ column: "trips.class", in: ["day"] }] };

/** What its cells do not tell. */
const beyond = { measures: [{ formula: "max(trips.seats)", as: "x" }] };

beforeEach(() => {
  vi.useFakeTimers({ now: new Date(`${TODAY}T12:00:00`) });
});
afterEach(() => {
  vi.useRealTimers();
});

function made(of = project, give: (asked: Preparing) => Uint8Array | null = (asked) => bytesOf(asked, of)) {
  const answers = new Answers(() => new Promise(() => {}));
  const [prepared, taken]: [Preparing[], Preparing[]] = [[], []];
  const cells = {
    prepare: (asked: Preparing) => {
      prepared.push(asked);
    },
    bytes: async (asked: Preparing) => {
      taken.push(asked);
      return give(asked);
    },
  };
  return { preparation: new Preparation({ project: of, board }, cells, answers), answers, prepared, taken };
}
const rest = (ms = 800) => vi.advanceTimersByTimeAsync(ms);
/** What comes into the page is there. */
const comes = (answers: Answers, query: QueryInput = afterwards) =>
  vi.waitFor(() => expect(answers.findInPage([query])).toBe(true));

describe("what a board may be asked", () => {
  it("is said once its reader rests, once for the same state, and nothing comes into the page by itself", async () => {
    const { preparation, prepared, taken } = made();
    preparation.settled(UNTOUCHED);
    await rest(700);
    preparation.settled(UNTOUCHED);
    await rest(799);
    expect(prepared).toEqual([]);
    await rest(1);
    expect(prepared).toHaveLength(1);
    expect(prepared[0].touched.map((t) => t.column)).toContain("trips.class");
    preparation.settled(UNTOUCHED);
    await rest();
    expect(prepared).toHaveLength(1);
    expect(taken).toEqual([]);
  });

  it("is answered in the page as by a scan once its reader filters, and taken once", async () => {
    const { preparation, answers, prepared, taken } = made();
    preparation.settled(UNTOUCHED);
    await rest();
    preparation.acted(filtered);
    expect(taken).toEqual(prepared);
    await comes(answers);
    const [scanned] = runQueries([wholeQuery(afterwards)], catalog(project));
    expect({ ...answers.of(afterwards), ms: 0 }).toEqual({ ...scanned, ms: 0 });
    expect(answers.of(afterwards)).toMatchObject({ totals: { seats: 90 } });
    preparation.settled({ ...UNTOUCHED, set: { c: filtered.setting } });
    await rest();
    expect(prepared).toHaveLength(2);
    // Others would tell no more than these.
    expect(answers.findInPage([beyond])).toBe(false);
    preparation.acted(filtered);
    expect(taken).toHaveLength(1);
  });

  it("is taken anew where what came is of how the board was filtered then, and does not tell", async () => {
    const { preparation, answers, taken } = made(project, (asked) => bytesOf(asked, project, FEW_CELLS));
    preparation.settled(UNTOUCHED);
    await rest();
    preparation.acted(filtered);
    await comes(answers, { measures: [{ id: "seats" }], splits: [{ column: "route" }] });
    preparation.settled({ ...UNTOUCHED, set: { c: filtered.setting } });
    await rest();
    preparation.acted(filtered);
    expect(taken).toHaveLength(1);
    expect(answers.findInPage([beyond])).toBe(false);
    preparation.acted(filtered);
    expect(taken).toHaveLength(2);
  });

  it("is said at once where its reader filters before resting", async () => {
    const { preparation, answers, prepared, taken } = made();
    preparation.settled(UNTOUCHED);
    preparation.acted(filtered);
    expect([prepared.length, taken.length]).toEqual([1, 1]);
    await comes(answers);
  });

  it("does not come into the page for who turns inputs, nor after the board is left", async () => {
    const { preparation, answers, taken } = made();
    preparation.settled(UNTOUCHED);
    preparation.acted(turned);
    await rest();
    preparation.acted({ type: "let go" });
    expect(taken).toEqual([]);
    preparation.acted(filtered);
    preparation.stop();
    await rest(5000);
    expect(answers.findInPage([afterwards])).toBe(false);
  });

  it("is taken no more once an input is turned, until its reader filters again", async () => {
    const { preparation, prepared, taken } = made(project, () => null);
    preparation.settled(UNTOUCHED);
    await rest();
    preparation.acted(filtered);
    preparation.acted(turned);
    preparation.settled({ ...UNTOUCHED, set: { c: filtered.setting } });
    await rest();
    expect([prepared.length, taken.length]).toEqual([2, 1]);
    preparation.acted(filtered);
    expect(taken).toEqual(prepared);
  });

  it("is asked for again where it did not come, and not where there is none", async () => {
    let isAway = true;
    const { preparation, answers, taken } = made(project, (asked) => {
      if (isAway) throw new Error("away");
      return bytesOf(asked);
    });
    preparation.settled(UNTOUCHED);
    await rest();
    preparation.acted(filtered);
    await vi.waitFor(() => {
      preparation.acted(filtered);
      expect(taken.length).toBeGreaterThan(1);
    });
    isAway = false;
    await vi.waitFor(() => {
      preparation.acted(filtered);
      expect(answers.findInPage([afterwards])).toBe(true);
    });

    const none = made(project, () => null);
    none.preparation.settled(UNTOUCHED);
    await rest();
    none.preparation.acted(filtered);
    await rest();
    none.preparation.acted(filtered);
    expect(none.taken).toHaveLength(1);
  });

  it("stays on the server where formulas match regular expressions, and is of its day alone", async () => {
    const matching = structuredClone(project);
    matching.measures[0].formula = "sum(seats) filter (where regexp_like(route, 'G'))";
    const { preparation, taken } = made(matching);
    preparation.settled(UNTOUCHED);
    await rest();
    preparation.acted(filtered);
    expect(taken).toEqual([]);

    const other = made();
    other.preparation.settled(UNTOUCHED);
    await rest();
    other.preparation.acted(filtered);
    await comes(other.answers);
    vi.setSystemTime(new Date("2026-05-05T12:00:00"));
    expect(other.answers.findInPage([{ measures: [{ id: "seats" }] }])).toBe(false);
    vi.setSystemTime(new Date(`${TODAY}T12:00:00`));
    const others = [{ measures: [{ id: "seats" }], filters: [{ column: "trips.class", in: ["night"] }] }];
    expect(other.answers.findInPage(others)).toBe(true);
  });
});
