import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import {
  bucketStart,
  type Calendar,
  civil,
  DATE_BUCKETS,
  dayOf,
  ISO_CALENDAR,
  isoWeek,
  isoWeekday,
  parseIsoDate,
  quarterOf,
  weekOf,
} from "../base/calendar";
import { bucketAfter } from "../engine/relative";
import { runQueries } from "../engine/run";
import { type QueryInput, querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { newVisual } from "../project/defaults";
import { bucketLabels, keyLabel, wordingOf } from "../rows/key-labels";
import { differences } from "../view/differences";
import { pictureOf } from "../view/picture";
import { toQuery } from "../view/query";
import { calendarOf, wordsOf } from "./conventions";
import { edited } from "./edits";
import { counted, filledIn, LONGEST_WORD, WORDS, type WordName, wordProblem } from "./fixed-words";
import { scopeOf } from "./names";
import { conventionsSchema, emptyProject, measureSchema, type Project, tableSchema } from "./schema";

const day = (text: string) => parseIsoDate(text) as number;
const calendar = (part: Partial<Calendar> = {}): Calendar => ({ ...ISO_CALENDAR, ...part });
const anyCalendar = fc.record({
  weekStart: fc.integer({ min: 1, max: 7 }),
  weekOne: fc.constantFrom("iso" as const, "first day" as const),
  yearStart: fc.integer({ min: 1, max: 12 }),
});
const anyDay = fc.integer({ min: day("1990-01-01"), max: day("2060-12-31") });

describe("a calendar of one's own", () => {
  it("holds every day in a stretch that begins as it says, and steps from one to the next without a gap", () => {
    fc.assert(
      fc.property(anyDay, anyCalendar, fc.constantFrom(...DATE_BUCKETS), (at, own, by) => {
        const start = bucketStart(at, by, own);
        const next = bucketAfter(at, by, 1, own);
        expect(start <= at && at < next).toBe(true);
        expect(bucketStart(next, by, own)).toBe(next);
        expect(bucketStart(next - 1, by, own)).toBe(start);
        if (by === "week") expect([isoWeekday(start), next - start]).toEqual([own.weekStart, 7]);
        if (by === "year") expect([civil(start).month, civil(start).day]).toEqual([own.yearStart, 1]);
        if (by === "quarter") expect((civil(start).month - own.yearStart + 12) % 3).toBe(0);
      }),
    );
  });

  it("counts weeks as ISO 8601 does where nothing else is said, and from the first day where that is said", () => {
    fc.assert(
      fc.property(anyDay, (at) => {
        expect(weekOf(at, ISO_CALENDAR)).toEqual(isoWeek(at));
      }),
    );
    const sundays = calendar({ weekStart: 7, weekOne: "first day" });
    expect(weekOf(day("2026-01-01"), sundays)).toEqual({ year: 2026, week: 1 });
    expect(weekOf(day("2025-12-28"), sundays)).toEqual({ year: 2026, week: 1 });
    expect(weekOf(day("2026-01-04"), sundays)).toEqual({ year: 2026, week: 2 });
    fc.assert(
      fc.property(anyDay, anyCalendar, (at, own) => {
        const { week } = weekOf(at, own);
        expect(week >= 1 && week <= 54).toBe(true);
        const next = weekOf(at + 7, own);
        expect(next.week === week + 1 || next.week === 1).toBe(true);
      }),
    );
  });

  it("names years that begin within a year by both, and their quarters", () => {
    const project = {
      ...emptyProject("p"),
      conventions: conventionsSchema.parse({ yearStart: 4, locale: "de" }),
    };
    const wording = wordingOf(project);
    expect(keyLabel("2025-04-01", "year", wording)).toBe("2025/26");
    expect(keyLabel("2025-10-01", "quarter", wording)).toBe("Q3 2025/26");
    expect(keyLabel("1999-04-01", "year", wording)).toBe("1999/00");
    expect(quarterOf(day("2026-03-31"), wording.calendar)).toBe(4);
    expect(keyLabel("2025-03-01", "month", wording)).toBe("Mär 2025");
    const labels = bucketLabels({ column: "on", by: "quarter" }, ["2025-04-01", "2026-01-01"], wording);
    expect(labels("2026-01-01")).toBe("Q4");
  });
});

const days = ["2025-03-31", "2025-04-01", "2025-12-28", "2026-01-03", "2026-03-31", "2026-04-01"];
const trips = madeTable("trips", {
  on: ["date", days.map(day)],
  n: ["number", [1, 2, 4, 8, 16, 32]],
  ok: ["boolean", [true, false, null, true, false, null]],
});
const project = (conventions: object): Project => ({
  ...emptyProject("p"),
  conventions: conventionsSchema.parse(conventions),
  tables: [
    tableSchema.parse({
      id: "t",
      name: "trips",
      rows: days.length,
      columns: scopeColumns(trips).map((c) => ({ name: c.name, reading: { type: c.type } })),
      source: { file: "" },
    }),
  ],
  measures: [
    measureSchema.parse({
      id: "n",
      name: "n_sum",
      label: "n",
      table: "trips",
      formula: "sum(n)",
      format: {},
    }),
  ],
});
function answer(query: QueryInput, from: Project) {
  const [result] = runQueries([querySchema.parse(query)], {
    scope: scopeOf(from),
    inputs: {},
    tables: [trips],
    today: "2026-01-02",
  });
  if (result instanceof QueryError) throw result;
  return result;
}
const grouped = (
  by: "year" | "quarter" | "week",
  conventions: object,
  filters: QueryInput["filters"] = [],
) => {
  const query: QueryInput = { measures: [{ id: "n_sum" }], splits: [{ column: "on", by }], filters };
  const { columns } = answer(query, project(conventions));
  return columns[0].values.map((key, i) => [key, columns[1].values[i]]);
};

describe("the conventions of a project", () => {
  it("rule splits, filters and stretches counted from today", () => {
    expect(grouped("year", { yearStart: 4 })).toEqual([
      ["2024-04-01", 1],
      ["2025-04-01", 30],
      ["2026-04-01", 32],
    ]);
    expect(grouped("quarter", {}).length).toBe(5);
    expect(grouped("week", { weekStart: "sunday" })).toContainEqual(["2025-12-28", 12]);
    expect(grouped("week", {})).toContainEqual(["2025-12-22", 4]);
    const thisYear = [
      { column: "on", relative: { unit: "year" as const, from: 0, to: 0, anchor: "today" as const } },
    ];
    expect(grouped("year", { yearStart: 4 }, thisYear)).toEqual([["2025-04-01", 30]]);
    expect(grouped("year", { yearStart: 4 }, [{ column: "on", by: "year", in: [2025] }])).toEqual([
      ["2025-04-01", 30],
    ]);
  });

  it("say the words of pictures; an empty one is as it ships", () => {
    const said = project({ words: { none: "unknown", yes: "ja", no: "nein", other: " ", constructor: "x" } });
    expect(wordsOf(said)).toMatchObject({ none: "unknown", other: "Other" });
    expect(Object.keys(wordsOf(said))).not.toContain("constructor");
    const visual = newVisual({
      id: "v",
      name: "v",
      kind: "rounded bars",
      value: "n",
      split: { column: "ok" },
    });
    const scene = pictureOf(visual, said, answer(toQuery(visual, said) as QueryInput, said));
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    expect(texts).toEqual(expect.arrayContaining(["ja", "nein", "unknown"]));
  });

  it("have words with places to fill in, which an own word keeps or is not taken", () => {
    const kept = "Voll bei {value}";
    const said = project({ words: { fullAt: kept, more: "und mehr", other: "{n} andere", left: "{value" } });
    expect(wordsOf(said)).toMatchObject({ ...WORDS, fullAt: kept });
    expect(wordProblem("fullAt", kept)).toBeNull();
    expect(wordProblem("fullAt", "  ")).toBeNull();
    expect(wordProblem("more", "und mehr")).toBe("Keep {n} in it: this is filled in.");
    expect(wordProblem("other", "{n} andere")).toContain("Leave out the braces");
    expect(wordProblem("left", "{value} {{left")).not.toBeNull();
    expect(wordProblem("of", "o".repeat(LONGEST_WORD + 1))).toContain("at most");
    expect(filledIn(kept, { value: "{n} $& {value}" })).toBe("Voll bei {n} $& {value}");
    expect([counted(WORDS.more, 0), counted(WORDS.more, 3)]).toEqual(["", "and 3 more"]);
    for (const name of Object.keys(WORDS) as WordName[]) expect(wordProblem(name, WORDS[name])).toBeNull();
  });

  it("say the foot of a picture and its tooltips in the words of the project", () => {
    const said = project({ words: { fullAt: "Voll bei {value}", share: "Anteil", more: "und {n} mehr" } });
    const visual = newVisual({
      id: "v",
      name: "v",
      kind: "radial bars",
      value: "n",
      split: { column: "ok" },
    });
    const scene = pictureOf(visual, said, answer(toQuery(visual, said) as QueryInput, said));
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    expect(texts.filter((text) => text.startsWith("Voll bei "))).toHaveLength(1);
    const donut = pictureOf(
      { ...visual, kind: "donut" },
      said,
      answer(toQuery({ ...visual, kind: "donut" }, said) as QueryInput, said),
    );
    const lines = donut.marks.flatMap((m) => m.datum?.lines.map((l) => l.label) ?? []);
    expect(lines).toContain("Anteil");
    expect(lines).not.toContain("Share");
  });

  it("are changed by an edit with its words, which differences find too", () => {
    const before = project({});
    const after = edited(before, {
      type: "change conventions",
      change: { yearStart: 7, weekStart: "sunday" },
    });
    expect(calendarOf(after)).toEqual({ weekStart: 7, weekOne: "iso", yearStart: 7 });
    expect(differences(before, after).map((d) => d.words)).toEqual([
      "Calendar and language: Weeks begin on “monday” → “sunday”, Years begin in month 1 → 7",
    ]);
    expect(dayOf(2026, 2, 30)).toBeNull();
  });

  it("refuse a time zone or a currency that is none, with a sentence", () => {
    const problem = (part: object) => conventionsSchema.safeParse(part).error?.issues[0].message;
    expect(problem({ timeZone: "Nowhere/Else" })).toContain("no time zone of that name");
    expect(problem({ timeZone: "Europe/Lisbon" })).toBeUndefined();
    expect(problem({ currency: "euro" })).toContain("three capitals");
    expect(problem({ yearStart: 13 })).toBeDefined();
  });
});
