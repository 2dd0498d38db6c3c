import type { Value } from "@/core/base/value";
import type { ColumnPlace } from "@/core/formula/meeting";
import type { Filter, QueryInput } from "@/core/plan/query";
import { homeTableOfVisual } from "@/core/project/home-table";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import type { CategoryOf, Scene } from "@/core/scene/marks";
import { pageFilters, pageInputs } from "@/core/snapshot/page-filters";
import type { Snapshot } from "@/core/snapshot/snapshot";
import { isPickable, type Picked, pickedAfter } from "@/core/view/picks";
import { type Design, sceneOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { toVisualData } from "@/core/view/visual-data";
import type { Answer } from "@/present/answers";
import { failingProofs } from "@/present/proof-notes";
import { VisualTile } from "@/present/visual-tile";
import { startPainter } from "@/render/painter/painter";
import { sceneToSvg } from "@/render/svg-text";
import { categoryTold } from "./category";
import { CavloElement, type Ground } from "./cavlo-element";
import { EmbedError } from "./embed-error";
import { numbersIn } from "./numbers";
import { offerFontsOf } from "./page-fonts";
import { pngOf } from "./png";
import type { CavloChange, CavloNumbers } from "./public";
import { sheetOf } from "./sheet";
import styles from "./visual.css";
import { wantedOf } from "./wanted";

const sheet = sheetOf(styles);

/** What is shown: a visual with what it asks and what it was answered. */
interface Shown extends Ground {
  visual: Visual;
  filters: Filter[];
  inputs: Record<string, Value>;
  query: QueryInput | null;
  answer: Answer | null;
  data: VisualData;
}

/** `<cavlo-visual>`: one visual that hovers, is picked on, filtered, and computed anew. */
export class CavloVisual extends CavloElement {
  static override readonly observedAttributes = [...CavloElement.observedAttributes, "visual"];

  private tile: VisualTile | null = null;
  private shown: Shown | null = null;
  private picks: Picked[] = [];
  private said: unknown = null;
  private designed: { of: object; design: Design } | null = null;

  constructor() {
    super(sheet());
  }

  get visual(): string {
    return this.getAttribute("visual") ?? "";
  }
  set visual(wanted: string) {
    this.setAttribute("visual", wanted);
  }

  protected override needs({ project, needs }: Snapshot): ColumnPlace[] | null {
    const visual = wantedOf(project.visuals, this.visual, "visual");
    return needs.find(([id]) => id === visual.id)?.[1] ?? null;
  }

  protected present(ground: Ground): void {
    const { project, answers } = ground;
    const visual = wantedOf(project.visuals, this.visual, "visual");
    const table = homeTableOfVisual(visual, project);
    const filters = pageFilters(this.wished("filters"), table, project);
    const inputs = pageInputs(this.wished("inputs"), project);
    const query = toQuery(visual, project, filters, inputs);
    const answer = query && answers.of(query);
    if (this.shown?.visual.id !== visual.id) this.picks = [];
    const waits = query !== null && answer === null;
    // What stood before stays until the next answer is there.
    const stood = this.shown?.visual.id === visual.id ? this.shown.data : null;
    const around = { filters, inputs };
    const before = this.shown;
    const isSame =
      before?.answer === answer &&
      before.project === project &&
      before.visual === visual &&
      JSON.stringify([before.filters, before.inputs]) === JSON.stringify([filters, inputs]);
    const data = isSame
      ? before.data
      : waits && stood
        ? stood
        : toVisualData(visual, project, answer, around);
    this.shown = { ...ground, visual, filters, inputs, query, answer, data };
    const { width, height } = visual.size;
    this.stage.style.setProperty("--cavlo-aspect", `${width} / ${height}`);
    if (!this.tile) {
      this.tile = new VisualTile(startPainter, this.wantsMotion);
      this.stage.append(this.tile.root);
    }
    this.paint(waits);
    const proofs: QueryInput[] = [];
    failingProofs(visual, project, (q) => {
      proofs.push(q);
      return answers.of(q);
    });
    const asked = [...(query ? [query] : []), ...(waits ? [] : proofs)];
    answers.ask(asked, () => this.renew());
    if (waits) return;
    // A reader is told of numbers that are others now, not of every drawing.
    if (this.said === this.shown.data) return;
    offerFontsOf(project, [visual, data]);
    this.said = this.shown.data;
    this.settled(visual.name, () => this.changed());
  }

  private changed(): CavloChange {
    return { filters: this.filters ?? {}, inputs: this.inputs ?? {} };
  }

  /** The same object until something of it changes, so that nothing is drawn anew without need. */
  private design({ project, family }: Ground): Design {
    if (this.designed?.of !== project || this.designed.design.family !== family)
      this.designed = { of: project, design: { ...project, family } };
    return this.designed.design;
  }

  private paint(pending: boolean): void {
    const { shown, tile } = this;
    if (!shown || !tile) return;
    const { visual, data, project, theme, answers } = shown;
    const lit = this.picks.at(-1) ?? null;
    tile.show({
      visual,
      data,
      design: this.design(shown),
      theme,
      pending,
      part: null,
      lit,
      onPick: (picked, more) => this.pick(picked, more),
      onEnter: () => {},
      onHover: (met) => this.tell("hover", { category: met && categoryTold(met, visual, data) }),
      menu: (category) =>
        category && isPickable(category.key)
          ? [{ text: this.isPicked(category) ? "Clear" : "Pick", run: () => this.pick(category, true) }]
          : [],
      notes: [],
      failing: failingProofs(visual, project, (q) => answers.of(q)),
      trail: [],
      onUp: () => {},
    });
  }

  private isPicked = ({ key, side }: CategoryOf) =>
    this.picks.some((p) => p.side === side && p.keys.includes(key));

  /** A pick is told to the page, which may keep it from being lit up. */
  private pick({ key, side }: CategoryOf, more: boolean): void {
    const { shown } = this;
    if (!shown || !isPickable(key)) return;
    const { visual, data } = shown;
    const all = (side === "series" ? data.series : data.rows).map((r) => r.key);
    const next = pickedAfter(this.picks, { visual: visual.id, side, key, more, shown: all });
    const picked = next.flatMap((p) =>
      p.keys.map((k) => categoryTold({ key: k, side: p.side }, visual, data)),
    );
    const detail = { ...categoryTold({ key, side }, visual, data), picked };
    if (!this.tell("pick", detail, { cancelable: true })) return;
    this.picks = next;
    this.paint(false);
  }

  protected clear(): void {
    this.tile?.dispose();
    this.tile?.root.remove();
    this.tile = null;
    this.shown = null;
    this.said = null;
  }

  /** The picture as it stands now, in the room that it has. */
  private scene(): Scene {
    const { shown } = this;
    if (!shown) throw new EmbedError("not-there", "Nothing is shown yet. Wait for ready.");
    const { visual, data, theme } = shown;
    const { width, height } = this.stage.getBoundingClientRect();
    const size =
      width >= 96 && height >= 72 ? { width: Math.floor(width), height: Math.floor(height) } : visual.size;
    return sceneOf(visual, data, this.design(shown), { size, theme, lit: this.picks.at(-1) ?? null });
  }

  toSVG(): string {
    return sceneToSvg(this.scene(), { title: this.shown?.visual.name ?? "" });
  }

  toPNG(scale = 2): Promise<Blob> {
    return pngOf(this.scene(), scale);
  }

  numbers(): CavloNumbers[] {
    const { shown } = this;
    return shown?.answer && !("error" in shown.answer)
      ? [numbersIn(shown.visual, shown.answer, shown.project)]
      : [];
  }
}
