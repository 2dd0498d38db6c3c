"use client";
import { RotateCcw } from "lucide-react";
import { type CSSProperties, memo, type ReactNode, useDeferredValue, useId, useMemo, useRef } from "react";
import type { TemplateNames } from "@/core/base/template";
import { kindOf } from "@/core/kinds";
import type { Dial, DialValue, Part } from "@/core/kinds/anatomy/dial";
import { homeOfSplit } from "@/core/project/categories";
import { homeTableOfVisual } from "@/core/project/home-table";
import { LONGEST } from "@/core/project/most";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { isColour } from "@/core/scene/colour";
import { categoryColoursOf } from "@/core/view/category-colours";
import { dialNotes } from "@/core/view/dial-notes";
import { readTyped, typedProblem, withUnit } from "@/core/view/dial-number";
import type { KindStyle } from "@/core/view/picture";
import { styleOf } from "@/core/view/picture";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { useDesign } from "../shared/design";
import { later } from "../shared/fetched-later";
import { useProjectStore } from "../shared/project-context";
import { useDraft } from "../shared/results";
import { TemplateField } from "../shared/template-field";
import { CategoryColours } from "./category-colours";
import { HELP_ID } from "./dial-help-line";
import { PaletteDial } from "./palette-dial";
import { useVisual } from "./sentences";

// Rules are fetched by visuals that are coloured by them.
const Rules = later(() => import("./rule-list").then((m) => m.Rules));

interface Props {
  dial: Dial;
  value: DialValue;
  /** What the picture has in the place of what the dial asks for. */
  note: string | undefined;
  names: TemplateNames;
  onChange: (value: DialValue | null) => void;
}

/** Sets a dial of a visual; null gives it back to what it is otherwise. */
type OnDial = (name: string, value: DialValue | null) => void;

interface BoundProps extends Omit<Props, "onChange"> {
  onDial: OnDial;
  /** "part.dial" */
  name: string;
}

/** One dial of one visual; drawn again only when its own value changes. */
const BoundDial = memo(function BoundDial({ onDial, name, ...props }: BoundProps) {
  return (
    <div className="contents" data-dial={name}>
      <DialRow {...props} onChange={(value) => onDial(name, value)} />
      {props.note && <p className="col-start-2 -mt-1 text-right text-xs text-muted">{props.note}</p>}
    </div>
  );
});

function NumberDial({ dial, value, note, onChange }: Props & { dial: Extract<Dial, { type: "number" }> }) {
  const id = useId();
  const now = typeof value === "number" ? value : dial.default;
  return (
    <>
      <label htmlFor={id} className="truncate text-sm text-muted">
        {dial.label}
      </label>
      <div className="grid grid-cols-[1fr_62px] items-center gap-2">
        <input
          type="range"
          className="dial-range"
          min={dial.min}
          max={dial.max}
          step={dial.step}
          value={now}
          style={{ "--filled": `${((now - dial.min) / (dial.max - dial.min)) * 100}%` } as CSSProperties}
          onChange={(e) => onChange(e.target.valueAsNumber)}
          aria-label={`${dial.label} slider`}
          aria-valuetext={[withUnit(now, dial.unit), note].filter(Boolean).join(", ")}
          aria-describedby={HELP_ID}
        />
        <div className="[&_.field]:h-7 [&_.field]:px-1 [&_.field]:text-right">
          <CommitField
            id={id}
            mono
            value={withUnit(now, dial.unit)}
            check={(t) => typedProblem(dial, t)}
            onCommit={(t) => onChange(readTyped(dial, t))}
          />
        </div>
      </div>
    </>
  );
}

function DialRow(props: Props) {
  const { dial, value, names, onChange } = props;
  const id = useId();
  if (dial.type === "number") return <NumberDial {...props} dial={dial} />;
  const label = (
    <label htmlFor={id} className="truncate text-sm text-muted">
      {dial.label}
    </label>
  );
  if (dial.type === "choice") {
    return (
      <>
        {label}
        <Choose id={id} value={String(value)} options={dial.options} onChange={onChange} />
      </>
    );
  }
  if (dial.type === "toggle") {
    return (
      <>
        {label}
        <input
          id={id}
          type="checkbox"
          role="switch"
          className="dial-switch"
          checked={value === true}
          aria-checked={value === true}
          onChange={(e) => onChange(e.target.checked)}
        />
      </>
    );
  }
  if (dial.type === "palette") {
    return (
      <>
        {label}
        <PaletteDial id={id} value={String(value)} onChange={onChange} />
      </>
    );
  }
  if (dial.type === "colour") {
    const set = typeof value === "string" && isColour(value);
    return (
      <>
        {label}
        <div className="flex items-center gap-2 justify-self-end">
          {set ? (
            <button type="button" className="text-xs text-muted underline" onClick={() => onChange(null)}>
              automatic
            </button>
          ) : (
            <span className="text-xs text-muted">automatic</span>
          )}
          <input
            id={id}
            type="color"
            value={set ? value : "#1f7a6d"}
            onChange={(e) => onChange(e.target.value)}
            className="h-7 w-9 rounded-sm border border-rule bg-sheet p-0.5"
          />
        </div>
      </>
    );
  }
  return (
    <>
      {label}
      <TemplateField
        id={id}
        mono
        value={String(value)}
        names={names}
        longest={LONGEST.dial}
        onCommit={onChange}
      />
    </>
  );
}

interface PartProps {
  visual: Visual;
  part: Part;
  names: TemplateNames;
  lit: boolean;
  onLit: (part: string | null) => void;
  onDial: OnDial;
  onClear: (dials: string[]) => void;
  style: KindStyle;
  notes: ReadonlyMap<string, string>;
  /** What belongs to the part besides its dials. */
  children?: ReactNode;
}

/** A part is drawn again only when one of its own dials moved. */
function samePart(a: PartProps, b: PartProps): boolean {
  return (
    a.visual.id === b.visual.id &&
    a.part === b.part &&
    a.lit === b.lit &&
    a.names === b.names &&
    a.children === b.children &&
    a.visual.finish === b.visual.finish &&
    a.part.dials.every(
      (d) => a.visual.dials[`${a.part.id}.${d.id}`] === b.visual.dials[`${a.part.id}.${d.id}`],
    ) &&
    a.part.dials.every((d) => a.notes.get(`${a.part.id}.${d.id}`) === b.notes.get(`${a.part.id}.${d.id}`))
  );
}

/**
 * The dials of one part, made from what the kind declares. Dials set by hand can be given back
 * to the default.
 */
const PartDials = memo(function PartDials({
  visual,
  part,
  names,
  lit,
  onLit,
  onDial,
  onClear,
  style,
  notes,
  children,
}: PartProps) {
  const set = part.dials.filter((d) => `${part.id}.${d.id}` in visual.dials);
  return (
    <section
      aria-label={part.label}
      onPointerEnter={() => onLit(part.id)}
      onPointerLeave={() => onLit(null)}
      className={`border-b border-rule px-4 py-3 transition-colors ${lit ? "bg-tint/60" : ""}`}
    >
      <div className="flex h-6 items-center justify-between">
        <h3 className="section-title">{part.label}</h3>
        {set.length > 0 && (
          <button
            type="button"
            className="icon-button size-6"
            aria-label={`Give ${part.label} its defaults back`}
            title="Defaults"
            onClick={() => onClear(set.map((d) => `${part.id}.${d.id}`))}
          >
            <RotateCcw size={13} />
          </button>
        )}
      </div>
      <div className="grid grid-cols-[94px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5 pt-1">
        {part.dials.map((dial) => {
          const key = `${part.id}.${dial.id}`;
          return (
            <BoundDial
              key={key}
              onDial={onDial}
              name={key}
              dial={dial}
              names={names}
              value={style.value(key)}
              note={notes.get(key)}
            />
          );
        })}
      </div>
      {children}
    </section>
  );
}, samePart);

/**
 * The edits that dials make: what has to change with a dial so that the picture means the same goes along in
 * the same edit.
 */
function useDialEdits(id: string, data: VisualData): { onDial: OnDial; onClear: (dials: string[]) => void } {
  const store = useProjectStore();
  const now = useRef(data);
  now.current = data;
  return useMemo(() => {
    const visualNow = () => store.getState().document.visuals.find((v) => v.id === id);
    const alongside = (visual: Visual, dial: string, value: DialValue | null) =>
      kindOf(visual.kind).alongside?.(visual, now.current, dial, value) ?? null;
    return {
      onDial: (dial, value) => {
        const visual = visualNow();
        const along = visual && alongside(visual, dial, value);
        const { apply } = store.getState();
        if (!along || value === null) apply({ type: "set dial", id, dial, value }, `dial ${id} ${dial}`);
        else
          apply({
            type: "change visual",
            id,
            change: { ...along, dials: { ...visual.dials, [dial]: value } },
          });
      },
      onClear: (dials) => {
        const visual = visualNow();
        const along = visual && dials.map((dial) => alongside(visual, dial, null)).find((change) => change);
        const { apply } = store.getState();
        if (!visual || !along) return apply({ type: "clear dials", id, dials });
        const others = Object.entries(visual.dials).filter(([dial]) => !dials.includes(dial));
        apply({ type: "change visual", id, change: { ...along, dials: Object.fromEntries(others) } });
      },
    };
  }, [id, store]);
}

/** A visual that stays the same object until something changes that its colours depend on. */
function useColoured(visual: Visual): Visual {
  const known = useRef(visual);
  const colours = ({ dials }: Visual) =>
    JSON.stringify(Object.entries(dials).filter(([dial]) => /^(colours|frame)\./.test(dial)));
  const before = known.current;
  const isSame =
    before.id === visual.id &&
    before.kind === visual.kind &&
    before.finish === visual.finish &&
    before.value === visual.value &&
    before.categoryColours === visual.categoryColours &&
    colours(before) === colours(visual);
  if (!isSame) known.current = visual;
  return known.current;
}

/** All dials of a visual, part by part; the part under the pointer is lit here and on the stage. */
export function DialPanel({
  id,
  data,
  names,
  lit,
  onLit,
}: {
  id: string;
  data: VisualData;
  names: TemplateNames;
  lit: string | null;
  onLit: (part: string | null) => void;
}) {
  const visual = useVisual(id);
  const design = useDesign();
  const style = styleOf(visual, design);
  // Told after the picture has followed the dial: they take another drawing.
  const drawn = useDeferredValue(visual);
  const notes = useMemo(() => dialNotes(drawn, data, design), [drawn, data, design]);
  const by = style.has("colours.by") ? style.choice("colours.by") : "";
  const palette = style.has("colours.palette") ? String(style.value("colours.palette")) : "";
  const { draft } = useDraft();
  const { rules, categoryColours, split, series } = visual;
  const table = homeTableOfVisual(visual, draft);
  const columns = useMemo(
    () =>
      [split, series].flatMap((one) => {
        const home = homeOfSplit(draft, table, one);
        return home ? [{ ...home, by: one?.by }] : [];
      }),
    [draft, table, split, series],
  );
  const { onDial, onClear } = useDialEdits(id, data);
  const coloured = useColoured(visual);
  const beside = useMemo(() => {
    if (by === "rule")
      return (
        <Rules id={id} rules={rules} format={data.format} saying={{ visual: coloured, project: draft }} />
      );
    return by === "category" ? (
      <CategoryColours
        id={id}
        shown={categoryColoursOf(coloured, data, design)}
        colours={categoryColours}
        columns={columns.map((home) => ({ ...home, palette }))}
      />
    ) : undefined;
  }, [by, id, rules, categoryColours, data, coloured, design, columns, palette, draft]);
  return kindOf(visual.kind).parts.map((part) => (
    <PartDials
      key={part.id}
      visual={visual}
      part={part}
      names={names}
      lit={lit === part.id}
      onLit={onLit}
      onDial={onDial}
      onClear={onClear}
      style={style}
      notes={notes}
    >
      {part.id === "colours" ? beside : undefined}
    </PartDials>
  ));
}
