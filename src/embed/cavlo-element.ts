import { cutText } from "@/core/base/cut-text";
import { todayIn } from "@/core/base/today";
import type { ColumnPlace } from "@/core/formula/meeting";
import { knowFormulas } from "@/core/project/names";
import type { Project } from "@/core/project/schema";
import { PageAskError } from "@/core/snapshot/page-filters";
import type { Snapshot } from "@/core/snapshot/snapshot";
import { Answers } from "@/present/answers";
import { element } from "@/present/elements";
import { EmbedError } from "./embed-error";
import { inLocale } from "./in-locale";
import { familyIdOf } from "./own-family";
import { offerOwnFamily } from "./page-fonts";
import { givenTables } from "./page-rows";
import { PageSource } from "./page-source";
import { places } from "./places";
import type { CavloEvents, CavloFilters, CavloRows, CavloValue } from "./public";
import { snapshotAt, snapshotOf } from "./snapshots";

/** Nothing is done until an element is so near the window. */
const NEAR = "400px";

/** What an element shows, and from where it is answered. */
export interface Ground {
  snapshot: Snapshot;
  /** The document in the language of the element. */
  project: Project;
  answers: Answers;
  theme: "light" | "night";
  /** A family of the page's own, by its id. */
  family: string | undefined;
}

/** Nothing, where there are no elements: the modules can be loaded on a server and in a worker too. */
const Base = (globalThis.HTMLElement ?? class {}) as typeof HTMLElement;

const night = globalThis.matchMedia?.("(prefers-color-scheme: dark)");
const calm = globalThis.matchMedia?.("(prefers-reduced-motion: reduce)");

/** Attributes that hold JSON. */
const AS_JSON = ["filters", "inputs"] as const;

/**
 * What both elements share: from where they have what they show, when they begin, and how they say what is
 * wrong. It never throws into the page, and writes into its own shadow root alone.
 */
export abstract class CavloElement extends Base {
  static readonly observedAttributes: string[] = [
    "src",
    "filters",
    "inputs",
    "theme",
    "locale",
    "motion",
    "family",
  ];

  /** Where the view is built. */
  protected readonly stage = element("div", { class: "cavlo", part: "stage", "data-ground": true });
  private readonly problem = element("p", { class: "cavlo-problem", part: "problem", role: "status" });
  private readonly first = element("slot", {});
  private near: IntersectionObserver | null = null;
  private isNear = false;
  private isAsked = false;
  private readonly set: {
    snapshot: unknown;
    rows: CavloRows | null;
    filters?: CavloFilters | null;
    inputs?: Record<string, CavloValue> | null;
  } = { snapshot: null, rows: null };
  /** What is answered from now, with what was noticed of the rows that a page gave. */
  private ground: { key: unknown[]; made: Ground; source: PageSource; notes: string } | null = null;
  /** Counts what was begun, so that what comes too late is left out. */
  private turn = 0;
  private wasReady = false;

  constructor(styles: CSSStyleSheet) {
    super();
    const shadow = this.attachShadow({ mode: "open" });
    shadow.adoptedStyleSheets = [styles];
    shadow.append(this.first, this.stage, this.problem);
    this.stage.hidden = true;
    this.problem.hidden = true;
  }

  /** Shows a ground, or shows it anew. Throws an EmbedError or a PageAskError where it cannot. */
  protected abstract present(ground: Ground): void;
  /** Lets go of what is shown. */
  protected abstract clear(): void;
  /** The columns of a page's rows that it reads; null: all that the snapshot names. */
  protected needs(_snapshot: Snapshot): ColumnPlace[] | null {
    return null;
  }

  connectedCallback(): void {
    // Properties that were set before the element was known are taken over.
    for (const name of [
      "snapshot",
      "rows",
      "filters",
      "inputs",
      "src",
      "theme",
      "locale",
      "motion",
      "family",
      "visual",
      "board",
    ])
      if (Object.hasOwn(this, name)) {
        const own = this as unknown as Record<string, unknown>;
        const value = own[name];
        delete own[name];
        own[name] = value;
      }
    night.addEventListener("change", this.renew);
    this.near = new IntersectionObserver(
      (entries) => {
        if (!entries.some((e) => e.isIntersecting)) return;
        this.near?.disconnect();
        this.isNear = true;
        this.renew();
      },
      { rootMargin: NEAR },
    );
    this.near.observe(this);
  }

  disconnectedCallback(): void {
    night.removeEventListener("change", this.renew);
    this.near?.disconnect();
    // An element that is moved within the page comes back at once, and keeps what it has.
    queueMicrotask(() => {
      if (this.isConnected) return;
      this.isNear = false;
      this.turn++;
      this.ground?.source.close();
      this.ground?.made.answers.stop();
      this.ground = null;
      this.clear();
      this.stage.hidden = true;
      this.first.hidden = false;
      this.wasReady = false;
    });
  }

  attributeChangedCallback(name: string, before: string | null, now: string | null): void {
    if (before === now) return;
    if (name === "filters" || name === "inputs") delete this.set[name];
    this.renew();
  }

  get src(): string {
    return this.getAttribute("src") ?? "";
  }
  set src(address: string) {
    this.setAttribute("src", address);
  }
  get snapshot(): unknown {
    return this.set.snapshot;
  }
  set snapshot(given: unknown) {
    this.set.snapshot = given;
    this.renew();
  }
  get rows(): CavloRows | null {
    return this.set.rows;
  }
  set rows(given: CavloRows | null) {
    this.set.rows = given ?? null;
    this.renew();
  }
  get filters(): CavloFilters | null {
    return this.wish("filters") as CavloFilters | null;
  }
  set filters(given: CavloFilters | null) {
    this.set.filters = given;
    this.renew();
  }
  get inputs(): Record<string, CavloValue> | null {
    return this.wish("inputs") as Record<string, CavloValue> | null;
  }
  set inputs(given: Record<string, CavloValue> | null) {
    this.set.inputs = given;
    this.renew();
  }
  get theme(): "light" | "night" | "auto" {
    const theme = this.getAttribute("theme");
    return theme === "night" || theme === "auto" ? theme : "light";
  }
  set theme(theme: "light" | "night" | "auto") {
    this.setAttribute("theme", theme);
  }
  get locale(): string {
    return this.getAttribute("locale") ?? "";
  }
  set locale(locale: string) {
    this.setAttribute("locale", locale);
  }
  get family(): string {
    return this.getAttribute("family") ?? "";
  }
  set family(name: string) {
    this.setAttribute("family", name);
  }
  get motion(): "auto" | "none" {
    return this.getAttribute("motion") === "none" ? "none" : "auto";
  }
  set motion(motion: "auto" | "none") {
    this.setAttribute("motion", motion);
  }

  /** What the page wishes of filters or inputs: the property before the attribute. Gives null where it is no JSON. */
  private wish(name: (typeof AS_JSON)[number]): unknown {
    if (this.set[name] !== undefined) return this.set[name];
    const text = this.getAttribute(name);
    if (text === null || text.trim() === "") return null;
    try {
      return JSON.parse(text);
    } catch {
      return null;
    }
  }

  /** The same, to be used. Throws an EmbedError where the attribute is no JSON. */
  protected wished(name: (typeof AS_JSON)[number]): unknown {
    const wish = this.wish(name);
    const text = this.getAttribute(name)?.trim();
    if (wish !== null || this.set[name] !== undefined || !text || text === "null") return wish;
    throw new EmbedError(name, `The attribute ${name} is no JSON: ${cutText(text, 80)}`);
  }

  protected readonly wantsMotion = (): boolean => this.motion === "auto" && !calm.matches;

  /** Tells the page something. */
  protected tell<K extends keyof CavloEvents>(
    type: K,
    detail: CavloEvents[K]["detail"],
    init: CustomEventInit = {},
  ): boolean {
    return this.dispatchEvent(
      new CustomEvent(type, { detail, bubbles: type !== "error", composed: true, ...init }),
    );
  }

  /** Says what is wrong, in the element and to the page. */
  private say(error: unknown): void {
    const known =
      error instanceof EmbedError
        ? error
        : error instanceof PageAskError
          ? new EmbedError(error.message.startsWith("inputs") ? "inputs" : "filters", error.message)
          : new EmbedError("engine", error instanceof Error ? error.message : String(error));
    this.problem.textContent = known.message;
    // Where nothing stands yet, the words take the place of the picture.
    const isEmpty = this.stage.childElementCount === 0;
    this.stage.hidden = isEmpty;
    this.problem.toggleAttribute("data-alone", isEmpty);
    this.problem.hidden = false;
    this.tell("error", { code: known.code, message: known.message, ...known.at });
  }

  /** Shows anew what may have changed, once for all that changes at the same moment. */
  protected readonly renew = (): void => {
    if (this.isAsked || !this.isNear || !this.isConnected) return;
    this.isAsked = true;
    queueMicrotask(() => {
      this.isAsked = false;
      if (!this.isNear || !this.isConnected) return;
      const turn = ++this.turn;
      this.begin(turn).catch((error: unknown) => {
        // What comes after something newer was begun has no say.
        if (turn === this.turn) this.say(error);
      });
    });
  };

  private async begin(turn: number): Promise<void> {
    const { snapshot: given, rows } = this.set;
    if (given === null && this.src === "") return;
    const root = this.getRootNode();
    const snapshot =
      given === null
        ? await snapshotAt(this.src, root instanceof ShadowRoot ? root : document)
        : snapshotOf(given, this);
    if (turn !== this.turn) return;
    const { locale, theme } = this;
    const themeNow = theme === "auto" ? (night.matches ? "night" : "light") : theme;
    const needs = rows ? this.needs(snapshot) : null;
    const key = [snapshot, rows, locale, needs];
    const isSame = this.ground?.key.every((part, i) => part === key[i]) ?? false;
    if (!this.ground || !isSame) {
      const project =
        this.ground?.key[0] === snapshot && this.ground.key[2] === locale
          ? this.ground.made.project
          : inLocale(snapshot.project, locale);
      knowFormulas(project, snapshot.formulas);
      const source = new PageSource({
        project,
        today: rows ? todayIn(project.conventions.timeZone) : snapshot.today,
        index: snapshot.index,
        rows: snapshot.rows,
        given: rows ? givenTables(rows, project, needs) : [],
        patterns: places.patterns(),
      });
      let notes = "";
      if (rows) {
        const held = await source.hold();
        if (turn !== this.turn) return source.close();
        if ("error" in held) {
          source.close();
          const { code, message, ...at } = held.error;
          throw new EmbedError(code, message, at);
        }
        notes = held.notes.map((note) => note.message).join(" ");
        for (const note of held.notes) this.tell("error", note);
      }
      this.ground?.source.close();
      const answers = new Answers(source.answer, rows ? [] : snapshot.answers);
      this.ground = {
        key,
        made: { snapshot, project, answers, theme: themeNow, family: undefined },
        source,
        notes,
      };
    }
    const made = { ...this.ground.made, theme: themeNow, family: familyIdOf(this.family) };
    this.stage.dataset.theme = themeNow;
    offerOwnFamily();
    this.stage.hidden = false;
    this.present(made);
    this.first.hidden = true;
    const { notes } = this.ground;
    this.problem.textContent = notes;
    this.problem.removeAttribute("data-alone");
    this.problem.hidden = notes === "";
  }

  /** All that is shown is answered. */
  protected settled(name: string, change: () => CavloEvents["change"]["detail"]): void {
    if (this.wasReady) this.tell("change", change());
    else this.tell("ready", { name });
    this.wasReady = true;
  }
}
