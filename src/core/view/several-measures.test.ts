import { describe, expect, it } from "vitest";
import { answeredData } from "@/testing/answered";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, projectTable } from "@/testing/made-table";
import { NEW_FORMAT } from "../base/number-format";
import type { KindId } from "../kinds";
import { newMeasure } from "../project/defaults";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { datumsOf } from "../scene/datums";
import { type Focus, focusOf, type Scene } from "../scene/marks";
import { sceneOf } from "./picture";

const STAYS = madeTable("stays", {
  ward: ["text", ["North", "South", "East"]],
  came: ["number", [2007, 800, 193]],
  went: ["number", [1544, 700, 156]],
  saved: ["number", [30, 20, -13]],
});
const measure = (id: string, label: string, formula: string) =>
  newMeasure({ id, name: id, label, table: "stays", formula, format: NEW_FORMAT });
const PROJECT: Project = {
  ...emptyProject("P"),
  tables: [projectTable(STAYS)],
  measures: [
    measure("came", "Admissions", "sum(came)"),
    measure("went", "Discharges", "sum(went)"),
    measure("mean", "Mean stay", "avg(came)"),
    measure("saved", "Saved", "sum(saved)"),
  ],
};
const WARD = { split: { column: "ward" } };
const drawn = (visual: Visual, focus?: Focus | null): Scene =>
  sceneOf(visual, answeredData(visual, PROJECT, [STAYS]), undefined, { focus });
const visual = (kind: KindId, more: Partial<Visual>) =>
  visualOf(kind, {}, { value: "came", split: null, title: "{measure}", subtitle: "{total}", ...more });
const plain = (text: string) => text.replaceAll("\u2009", "");
const textsOf = ({ marks }: Scene, id: RegExp) =>
  marks.flatMap((m) => (m.type === "text" && id.test(m.id) ? [plain(m.text)] : []));

describe("several measures in one visual", () => {
  it("put into the centre what the ring under the pointer says, ring by ring", () => {
    const kinds = [
      visual("donut", { ...WARD, more: ["went"] }),
      visual("donut", { ...WARD, series: { column: "ward" } }),
      visual("progress ring", { more: ["went"] }),
      visual("progress ring", { more: ["went"], target: { number: 4000 } }),
    ];
    for (const each of kinds) {
      const arcs = drawn(each).marks.filter((m) => m.surface === "data" && m.datum);
      expect(arcs.length).toBeGreaterThan(1);
      for (const arc of arcs) {
        const scene = drawn({ ...each, dials: { "reading.text": "{value}" } }, focusOf(arc));
        expect(textsOf(scene, /^reading$/), arc.id).toEqual([plain(arc.datum?.lines[0].value ?? "")]);
        const [caption] = textsOf(scene, /^caption$/);
        expect(caption).toContain(arc.datum?.title);
        if (each.more.length > 0) expect(caption).toContain(arc.datum?.lines[0].label);
      }
    }
  });

  it("all stand in the title, and in what is said of the picture", () => {
    const cases: [Visual, string][] = [
      [visual("donut", { more: ["went"] }), "Admissions and Discharges"],
      [visual("progress ring", { more: ["went", "mean"] }), "Admissions, Discharges and Mean stay"],
      [visual("nested bars", { ...WARD, second: "went" }), "Admissions and Discharges"],
    ];
    for (const [each, named] of cases) {
      expect(textsOf(drawn(each), /^title0$/)).toEqual([named]);
      expect(drawn({ ...each, title: "" }).description).toContain(`${named}: `);
    }
  });

  it("have one whole: what they are shares of is the total that is written", () => {
    const scene = drawn(visual("donut", { more: ["went"] }));
    expect(textsOf(scene, /^(reading|subtitle0)$/)).toEqual(["5400", "5400"]);
    expect(textsOf(scene, /^caption$/)[0]).toMatch(/^Admissions and Dis/);
    const shares = datumsOf(scene).flatMap(({ datum }) => datum.lines.filter((l) => l.label === "Share"));
    expect(shares.map((l) => plain(l.value))).toEqual(["56%", "44%"]);
  });

  it("are no shares of each other where one is an average beside its total", () => {
    const scene = drawn(visual("donut", { ...WARD, more: ["mean"] }));
    const said = datumsOf(scene).map(({ datum }) => datum.lines.map((l) => l.label));
    expect(said).toEqual([...Array(3).fill(["Admissions", "Share"]), ...Array(3).fill(["Mean stay"])]);
  });

  it("keep one order, the value first, in legend, labels and title, whichever bar holds it", () => {
    for (const holds of ["value", "second"]) {
      const each = visual("nested bars", { ...WARD, second: "went", dials: { "bar.holds": holds } });
      const scene = drawn(each);
      expect(textsOf(scene, /^legend:/)).toEqual(["Admissions", "Discharges"]);
      expect(textsOf(scene, /^legendvalue:/)).toEqual(["3000", "2400"]);
      expect(textsOf(scene, /^end/)[0] ?? textsOf(scene, /label/)[0]).toMatch(/2007.*1544/);
    }
  });
});

describe("the legend of nested bars", () => {
  it("has no totals of all rows where only the first of them are drawn", () => {
    const each = visual("nested bars", { ...WARD, second: "went", keep: { first: 2, others: false } });
    expect(textsOf(drawn(each), /^legend:/)).toEqual(["Admissions", "Discharges"]);
    expect(textsOf(drawn(each), /^legendvalue:/)).toEqual([]);
  });
});

describe("parts of which one lies below zero", () => {
  it("are called no shares of a total that they do not make", () => {
    for (const kind of ["donut", "rose", "waffle", "capsule stack"] as const) {
      const split = kind === "capsule stack" ? { series: { column: "ward" } } : {};
      const scene = drawn(visual(kind, { ...WARD, ...split, value: "saved" }));
      const said = datumsOf(scene).flatMap(({ datum }) => datum.lines.map((l) => l.label));
      expect(said.length, kind).toBeGreaterThan(0);
      if (kind !== "capsule stack") expect(said, kind).not.toContain("Share");
    }
  });
});
