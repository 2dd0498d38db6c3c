import { parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import { cutText } from "../base/cut-text";
import { own } from "../base/own";
import type { Value, ValueType } from "../base/value";
import { columnNamed } from "../formula/scope-names";
import type { Relative } from "../plan/query";
import { type Named, scopeOf } from "../project/names";
import type { Board, Input, Project, Setting, Visual } from "../project/schema";
import { categoryKey, type RowKey, rowKey, type Side, subjectOf } from "../rows/row-key";
import { type BoardState, seenVisual } from "./board-state";
import { columnOfPick, type Picked } from "./picks";
import { allOf, type FilterOfBoard, isOfForm, isSameSetting, keepsAll } from "./settings";
import { spoken } from "./spoken";
import { canStepDown, steppedVisual } from "./steps";

/** What the names of an address begin with, before the id of a control, the name of an input, … */
const [CHOSEN, FROM, TO, SPAN, TEXT] = ["only.", "from.", "to.", "span.", "with."];
const [INPUT, STEPPED, PICKED, BUT, LIT] = ["set.", "step.", "pick.", "but.", "lit."];
/** The names that a state is told by begin so: all others of an address are somebody else's. */
const OWN = [CHOSEN, FROM, TO, SPAN, TEXT, INPUT, STEPPED, PICKED, BUT, LIT];

/** No filter, pick or input of an address has more values than this, and there are no more of them. */
const MOST_VALUES = 500;
const MOST_NAMES = 60;

/** The longest text that is looked for. */
const LONGEST_TEXT = 200;

const [NONE, OTHER, NO_MATCH] = ["(none)", "(other)", "(no match)"];
const NUMBER = /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i;

/**
 * A value as an address has it: a text as it is, where that reads as nothing else, or in quotes as JSON; a
 * number, true and false as they are; null as "(none)".
 */
function written(value: Value): string {
  if (value === null) return NONE;
  if (typeof value !== "string") return String(value);
  const isPlain =
    value !== "" &&
    !/^[("]/.test(value) &&
    !NUMBER.test(value) &&
    value !== "true" &&
    value !== "false" &&
    !/\p{Surrogate}/u.test(value);
  return isPlain ? value : JSON.stringify(value);
}

/** The value that a text of an address says; undefined where it is none. */
function read(text: string): Value | undefined {
  if (text === NONE) return null;
  if (text === "true" || text === "false") return text === "true";
  if (NUMBER.test(text)) return Number.isFinite(Number(text)) ? Number(text) : undefined;
  if (!text.startsWith('"')) return text.startsWith("(") || text === "" ? undefined : text;
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "string" ? value : undefined;
  } catch {
    return undefined;
  }
}

const writtenKey = (key: RowKey): string => {
  const subject = subjectOf(key);
  if (subject.type === "other") return OTHER;
  return subject.type === "category" ? written(subject.value) : NO_MATCH;
};

function readKey(text: string): RowKey | undefined {
  if (text === OTHER) return rowKey({ type: "other" });
  if (text === NO_MATCH) return rowKey({ type: "no match" });
  const value = read(text);
  return value === undefined ? undefined : categoryKey(value);
}

const sideName = ({ visual, side }: Pick<Picked, "visual" | "side">) =>
  side === "series" ? `${visual}.series` : visual;

/** A setting as names and values; one that keeps all has an empty one. */
function writtenSetting(id: string, setting: Setting): [string, string][] {
  if (keepsAll(setting)) return [[CHOSEN + id, ""]];
  if ("in" in setting) return setting.in.map((v) => [CHOSEN + id, written(v)]);
  if ("contains" in setting) return [[TEXT + id, setting.contains]];
  if ("relative" in setting) {
    const { unit, from, to, anchor } = setting.relative;
    return [[SPAN + id, [unit, from, to, anchor].join(" ")]];
  }
  const { from, to } = setting;
  return [
    ...(from === null ? [] : [[FROM + id, written(from)] as [string, string]]),
    ...(to === null ? [] : [[TO + id, written(to)] as [string, string]]),
  ];
}

/** A stretch of time as an address says it: "month -3 -1 newest". */
function readSpan(text: string): Setting | undefined {
  const found = /^(year|quarter|month|week|day) (-?\d{1,5}) (-?\d{1,5}) (today|newest)$/.exec(text);
  if (!found) return undefined;
  const [, unit, from, to, anchor] = found;
  const relative = { unit, from: Number(from), to: Number(to), anchor } as Relative;
  return Math.max(Math.abs(relative.from), Math.abs(relative.to)) <= 10_000 ? { relative } : undefined;
}

/** What a reader changed, as names and values of an address. What no longer exists is not among them. */
export function addressOf(
  state: BoardState,
  board: Pick<Board, "controls">,
  project: Pick<Project, "inputs">,
): [string, string][] {
  const chosen = board.controls.flatMap((control): [string, string][] => {
    const setting = control.type === "filter" ? own(state.set, control.id) : undefined;
    if (control.type !== "filter" || setting === undefined) return [];
    return isSameSetting(setting, control.begins) ? [] : writtenSetting(control.id, setting);
  });
  const inputs = project.inputs.flatMap(({ name, value }): [string, string][] => {
    const now = own(state.inputs, name);
    return now === undefined || now === value ? [] : [[INPUT + name, written(now)]];
  });
  const picks = state.picks.flatMap((p): [string, string][] => [
    ...p.keys.map((key): [string, string] => [PICKED + sideName(p), writtenKey(key)]),
    ...(p.but ?? []).map((key): [string, string] => [BUT + sideName(p), writtenKey(key)]),
    ...(p.part ? [[LIT + sideName(p), "part"] as [string, string]] : []),
  ]);
  const steps = Object.entries(state.steps).flatMap(([visual, path]) =>
    path.map((key): [string, string] => [STEPPED + visual, writtenKey(key)]),
  );
  return [...chosen, ...inputs, ...steps, ...picks];
}

/** Whether a value can be one of a column: of its type, or for a date in years the number of one. */
function fits(value: Value, type: ValueType | undefined, by: string | undefined): boolean {
  if (value === null) return true;
  if (type === "date" || type === "timestamp") {
    if (by === "year" && typeof value === "number") return Number.isInteger(value);
    if (typeof value !== "string") return false;
    return (type === "timestamp" && !by ? parseIsoTimestamp(value) : parseIsoDate(value)) !== null;
  }
  return type === (typeof value === "string" ? "text" : typeof value);
}

const typeOf = (project: Named, { table, column }: { table: string; column: string }) =>
  columnNamed(scopeOf(project), table, column)?.type;

/** A state that an address says, and in words what of it was left out. */
export interface ReadState {
  state: BoardState;
  left: string[];
}

/** The values that can be ones of a column, and a word for what was left out of them. */
function fittingValues(texts: string[], type: ValueType | undefined, by: string | undefined) {
  const values = texts.map(read).filter((v): v is Value => v !== undefined && fits(v, type, by));
  return { values, lost: texts.length - values.length };
}

function readInput(input: Input, texts: string[]): Value | undefined {
  const value = read(texts[0]);
  if (value === undefined || value === null || texts.length !== 1) return undefined;
  if (!fits(value, input.type, undefined)) return undefined;
  const { minimum, maximum, choices, choicesFrom } = input;
  if (typeof value === "number" && ((minimum ?? value) > value || (maximum ?? value) < value))
    return undefined;
  return choices.length > 0 && !choicesFrom && !choices.includes(value) ? undefined : value;
}

/** The categories of one split that an address says; null where the visual has no such split. */
function readKeys(texts: string[], visual: Visual, side: Side, project: Named): RowKey[] | null {
  const place = columnOfPick(visual, side, project);
  if (!place) return null;
  const type = typeOf(project, place);
  return texts.flatMap((text) => {
    const key = readKey(text);
    const subject = key && subjectOf(key);
    return key && subject && (subject.type !== "category" || fits(subject.value, type, place.by))
      ? [key]
      : [];
  });
}

/** Reads what an address says of a board, name by name; each way of reading says whether the board has such. */
class AddressReader {
  readonly left: string[] = [];
  private readonly settings = new Map<string, Setting>();
  private readonly inputs: [string, Value][] = [];
  private readonly steps: [string, RowKey[]][] = [];
  private readonly picks: Picked[] = [];

  constructor(
    private readonly board: Pick<Board, "controls" | "tiles">,
    private readonly project: Pick<Project, "visuals"> & Named,
    /** What stands under each name. */
    private readonly said: ReadonlyMap<string, string[]>,
  ) {}

  get state(): BoardState {
    const { picks } = this;
    return {
      set: Object.fromEntries(this.settings),
      inputs: Object.fromEntries(this.inputs),
      steps: Object.fromEntries(this.steps),
      picks,
    };
  }

  /** By what their names begin with. What is picked is read after what was stepped down to. */
  readonly ways: [string, (of: string, texts: string[]) => boolean][] = [
    [CHOSEN, (id, texts) => this.filter(id, texts, (control) => this.choose(control, texts))],
    [FROM, (id, texts) => this.filter(id, texts, (control) => this.end(control, texts, "from"))],
    [TO, (id, texts) => this.filter(id, texts, (control) => this.end(control, texts, "to"))],
    [SPAN, (id, texts) => this.filter(id, texts, () => readSpan(texts[0]))],
    [TEXT, (id, texts) => this.filter(id, texts, () => ({ contains: cutText(texts[0], LONGEST_TEXT) }))],
    [INPUT, (name, texts) => this.set(name, texts)],
    [STEPPED, (id, texts) => this.step(id, texts)],
    [PICKED, (of, texts) => this.pick(of, texts)],
    // Read with what is picked.
    [BUT, (of) => this.said.has(PICKED + of)],
    [LIT, (of, texts) => this.said.has(PICKED + of) && texts[0] === "part"],
  ];

  /** A setting of a filter; one that is none, or of another form than the filter's, is left out. */
  private filter(
    id: string,
    texts: string[],
    read: (control: FilterOfBoard) => Setting | undefined,
  ): boolean {
    const control = this.board.controls.find((c) => c.type === "filter" && c.id === id);
    if (control?.type !== "filter") return false;
    const isAll = texts.length === 1 && texts[0] === "";
    const setting = isAll ? allOf(control) : read(control);
    if (setting && isOfForm(control, setting)) this.settings.set(id, setting);
    else this.left.push(`what ${control.label} is set to`);
    return true;
  }

  private choose(control: FilterOfBoard, texts: string[]): Setting | undefined {
    const { values, lost } = fittingValues(texts, typeOf(this.project, control), control.by);
    if (values.length === 0) return undefined;
    if (lost > 0) this.left.push(`${lost === 1 ? "a value" : `${lost} values`} of ${control.label}`);
    return { in: control.many ? values : values.slice(0, 1) };
  }

  /** One end of a stretch; the other may be known already. */
  private end(control: FilterOfBoard, texts: string[], end: "from" | "to"): Setting | undefined {
    const value = read(texts[0]);
    if (value === undefined || value === null || !fits(value, typeOf(this.project, control), undefined))
      return undefined;
    const before = this.settings.get(control.id);
    const known = before && "from" in before ? before : { from: null, to: null };
    return { ...known, [end]: value };
  }

  private set(name: string, texts: string[]): boolean {
    const input = this.project.inputs.find((i) => i.name === name);
    const value = input && readInput(input, texts);
    if (input && value === undefined) this.left.push(`the value of ${input.label}`);
    if (value !== undefined) this.inputs.push([name, value]);
    return input !== undefined;
  }

  /** A visual of the board as it is drawn; undefined where there is none. */
  private visual(id: string): Visual | undefined {
    const isShown = this.board.tiles.some((t) => t.type === "visual" && t.visual === id);
    const visual = isShown ? this.project.visuals.find((v) => v.id === id) : undefined;
    return visual && spoken(visual);
  }

  private step(id: string, texts: string[]): boolean {
    const visual = this.visual(id);
    if (!visual?.split) return false;
    const path: RowKey[] = [];
    for (const text of texts) {
      const seen = steppedVisual(visual, path);
      const [key] = readKeys([text], seen, "split", this.project) ?? [];
      if (key === undefined || !canStepDown(visual, path, key)) break;
      path.push(key);
    }
    if (path.length < texts.length) this.left.push(`a step down in ${visual.name}`);
    if (path.length > 0) this.steps.push([id, path]);
    return true;
  }

  private pick(of: string, texts: string[]): boolean {
    const [id, side]: [string, Side] = of.endsWith(".series")
      ? [of.slice(0, -".series".length), "series"]
      : [of, "split"];
    const whole = this.visual(id);
    const visual = whole && seenVisual(whole, this.state);
    const keys = visual ? readKeys(texts, visual, side, this.project) : null;
    if (!visual || !keys) return false;
    if (keys.length < texts.length) this.left.push(`what is picked of ${visual.name}`);
    if (keys.length === 0) return true;
    const isOther = keys.some((k) => subjectOf(k).type === "other");
    const beside = isOther ? (this.said.get(BUT + of) ?? []) : [];
    const but = readKeys(beside, visual, side, this.project) ?? [];
    const part = this.said.get(LIT + of)?.[0] === "part";
    this.picks.push({ visual: id, side, keys, ...(isOther ? { but } : {}), ...(part ? { part } : {}) });
    return true;
  }
}

/**
 * The state that the names and values of an address say of a board. What it does not have, what is of another
 * type, and what is too much is left out, and said. Names of anybody else are not looked at.
 */
export function stateFrom(
  address: Iterable<[string, string]>,
  board: Pick<Board, "controls" | "tiles">,
  project: Pick<Project, "visuals"> & Named,
): ReadState {
  const found = new Map<string, string[]>();
  for (const [name, text] of address)
    if (isOfState(name)) {
      const texts = found.get(name) ?? [];
      texts.push(text);
      found.set(name, texts);
    }
  const said = [...found].slice(0, MOST_NAMES);
  const reader = new AddressReader(board, project, new Map(said));
  const { left } = reader;
  if (found.size > MOST_NAMES) left.push(`${found.size - MOST_NAMES} of ${found.size} choices`);
  let unknown = 0;
  for (const [begin, read] of reader.ways)
    for (const [name, texts] of said.filter(([n]) => n.startsWith(begin))) {
      if (texts.length > MOST_VALUES)
        left.push(`${texts.length} values, of which ${MOST_VALUES} are the most`);
      else if (!read(name.slice(begin.length), texts)) unknown++;
    }
  if (unknown > 0)
    left.push(
      unknown === 1 ? "a choice that this board has not" : `${unknown} choices that this board has not`,
    );
  return { state: reader.state, left };
}

/** Whether a name of an address says something of a board's state. */
export const isOfState = (name: string): boolean => OWN.some((begin) => name.startsWith(begin));
