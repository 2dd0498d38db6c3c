"use client";
import { ChevronDown, ChevronUp, X } from "lucide-react";
import { cutText } from "@/core/base/cut-text";
import { sameName } from "@/core/base/names";
import type { ControlChange } from "@/core/project/board-edits";
import { homeTableOf } from "@/core/project/home-table";
import { LONGEST } from "@/core/project/most";
import { scopeOf } from "@/core/project/names";
import type { Board, Control, Project } from "@/core/project/schema";
import { labelAfter } from "@/core/view/board-filters";
import { plainText, readText } from "@/core/view/board-text";
import { answersTo, tableKnows } from "@/core/view/picks";
import { allOf, columnOf, type FilterOfBoard, isOfForm } from "@/core/view/settings";
import { measuresOfText } from "@/core/view/text-names";
import { canBe } from "@/present/input-view";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { PopoverButton } from "../shared/popover-button";
import { useProject } from "../shared/project-context";
import { useTellRemoved } from "../shared/tell-edit";

/** The tiles that a filter can reach: those whose visual, or a measure of whose text, knows its column. */
const reachable = (board: Board, control: FilterOfBoard, project: Project): string[] =>
  board.tiles.flatMap((tile) => {
    const knows = (table: string | null) => table !== null && tableKnows(table, columnOf(control), project);
    if (tile.type === "text")
      return measuresOfText(tile, project).some((m) => knows(homeTableOf(m, project))) ? tile.id : [];
    const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
    return visual && answersTo(visual, columnOf(control), project) ? tile.id : [];
  });

const typeOf = ({ table, column }: FilterOfBoard, project: Project) =>
  scopeOf(project)
    .tables.find((t) => sameName(t.name, table))
    ?.columns.find((c) => sameName(c.name, column))?.type;

/** The forms that a filter can have, by the type of its column. */
function formsOf(type: ReturnType<typeof typeOf>): { value: FilterOfBoard["as"]; label: string }[] {
  const isTime = type === "date" || type === "timestamp";
  return [
    { value: "buttons", label: "Buttons" },
    { value: "list", label: "List with search" },
    { value: "menu", label: "Menu" },
    ...(type === "number" ? [{ value: "stretch" as const, label: "From – to" }] : []),
    ...(isTime ? [{ value: "stretch" as const, label: "Dates" }] : []),
    ...(type === "text" ? [{ value: "text" as const, label: "Text" }] : []),
  ];
}

const INPUT_FORMS = [
  { value: "automatic", label: "By its type" },
  { value: "slider", label: "Slider" },
  { value: "field", label: "Field" },
  { value: "switch", label: "Switch" },
] as const;

const WIDTHS = [
  { value: "automatic", label: "As wide as needed" },
  { value: "narrow", label: "Narrow" },
  { value: "wide", label: "Wide" },
  { value: "row", label: "A row of its own" },
] as const;

const STEPS = ["year", "quarter", "month", "week"] as const;

/** A control of a board while it is arranged: its label, its form, what it reaches, its place. */
export function ControlRow({
  board,
  control,
  at,
  onLight,
}: {
  board: Board;
  control: Control;
  at: number;
  /** Shows which tiles it reaches; none where it is left. */
  onLight: (tiles: string[]) => void;
}) {
  const project = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const tellRemoved = useTellRemoved();
  const input = control.type === "input" ? project.inputs.find((i) => i.id === control.input) : undefined;
  const label = control.type === "filter" ? control.label : (input?.label ?? "input");
  const change = (by: ControlChange) =>
    apply({ type: "change control", board: board.id, control: control.id, change: by });
  const reached = control.type === "filter" ? reachable(board, control, project) : [];
  const lit = control.type === "filter" ? reached.filter((t) => !control.leaves.includes(t)) : [];
  const move = (to: number) => apply({ type: "move control", board: board.id, control: control.id, to });
  return (
    <div
      role="group"
      aria-label={`Control ${label}`}
      className="flex flex-col gap-1 rounded-sm border border-rule bg-sheet p-1.5"
      onPointerEnter={() => onLight(lit)}
      onPointerLeave={() => onLight([])}
      onFocus={() => onLight(lit)}
      onBlur={() => onLight([])}
    >
      <div className="flex items-center gap-1">
        {control.type === "filter" ? (
          <CommitField
            label={`Label of the filter ${label}`}
            value={label}
            check={(t) => (t.trim() ? null : "A label is needed.")}
            longest={LONGEST.name}
            onCommit={(t) => change({ label: t.trim() })}
          />
        ) : (
          <span className="flex-1 truncate text-sm">{label}</span>
        )}
        <button
          type="button"
          className="icon-button size-6 shrink-0"
          aria-label={`Move ${label} forward`}
          disabled={at === 0}
          onClick={() => move(at - 1)}
        >
          <ChevronUp size={13} />
        </button>
        <button
          type="button"
          className="icon-button size-6 shrink-0"
          aria-label={`Move ${label} back`}
          disabled={at === board.controls.length - 1}
          onClick={() => move(at + 1)}
        >
          <ChevronDown size={13} />
        </button>
        <button
          type="button"
          className="icon-button size-6 shrink-0"
          aria-label={`Remove the control ${label}`}
          onClick={() => {
            apply({ type: "remove control", board: board.id, control: control.id });
            onLight([]);
            tellRemoved(`${label} is off the board.`);
          }}
        >
          <X size={13} />
        </button>
      </div>
      {control.type === "filter" ? (
        <FilterForm control={control} board={board} reached={reached} change={change} />
      ) : (
        input && (
          <Choose
            label={`Form of ${label}`}
            value={control.as}
            options={INPUT_FORMS.filter((f) => canBe(input, f.value))}
            onChange={(as) => change({ as: as as (typeof INPUT_FORMS)[number]["value"] })}
          />
        )
      )}
      <Choose
        label={`Width of ${label}`}
        value={control.width}
        options={[...WIDTHS]}
        onChange={(width) => change({ width: width as Control["width"] })}
      />
    </div>
  );
}

function FilterForm({
  control,
  board,
  reached,
  change,
}: {
  control: FilterOfBoard;
  board: Board;
  reached: string[];
  change: (by: ControlChange) => void;
}) {
  const project = useProject((s) => s.document);
  const type = typeOf(control, project);
  const { label, as, by, many, leaves } = control;
  const isTime = type === "date" || type === "timestamp";
  const isListed = as === "buttons" || as === "list" || as === "menu";
  if (type === undefined)
    return (
      <p className="text-xs text-signal">
        {control.table} has no column {control.column} any more. Remove this filter, or bring the column back.
      </p>
    );
  const toForm = (next: FilterOfBoard["as"]) => {
    const form = { as: next };
    // What it began with in another form means nothing here.
    change({ as: next, ...(isOfForm(form, control.begins) ? {} : { begins: allOf(form) }) });
  };
  const tiles = board.tiles.flatMap((t) => {
    if (t.type === "text" && measuresOfText(t, project).length > 0)
      return [{ id: t.id, name: `text ${cutText(plainText(readText(t.text)), 40)}` }];
    const visual = t.type === "visual" && project.visuals.find((v) => v.id === t.visual);
    return visual ? [{ id: t.id, name: visual.name }] : [];
  });
  const count = reached.filter((t) => !leaves.includes(t)).length;
  return (
    <div className="flex flex-wrap items-center gap-1">
      <Choose
        label={`Form of ${label}`}
        value={as}
        options={formsOf(type)}
        onChange={(next) => toForm(next as FilterOfBoard["as"])}
      />
      {isTime && isListed && (
        <Choose
          label={`Steps of ${label}`}
          value={by ?? "year"}
          options={STEPS.map((step) => ({ value: step, label: `by ${step}` }))}
          onChange={(next) => {
            const step = next as (typeof STEPS)[number];
            change({ by: step, label: labelAfter(control, step), begins: { in: [] } });
          }}
        />
      )}
      {isListed && (
        <label className="flex min-h-6 items-center gap-1.5 px-1 text-xs">
          <input
            type="checkbox"
            className="accent-verdigris"
            checked={many}
            onChange={(e) => change({ many: e.target.checked })}
          />
          several
        </label>
      )}
      <PopoverButton
        label={`Tiles that ${label} reaches`}
        text={`reaches ${count} of ${tiles.length}`}
        className="button h-7 text-xs"
      >
        {() =>
          tiles.map(({ id, name }) => (
            <label key={id} className="flex items-center gap-2 rounded-sm px-2 py-1 text-sm hover:bg-tint">
              <input
                type="checkbox"
                className="accent-verdigris"
                disabled={!reached.includes(id)}
                checked={reached.includes(id) && !leaves.includes(id)}
                onChange={(e) =>
                  change({ leaves: e.target.checked ? leaves.filter((t) => t !== id) : [...leaves, id] })
                }
              />
              <span className="min-w-0 flex-1 truncate">{name}</span>
              {!reached.includes(id) && <span className="text-xs text-muted">no such column</span>}
            </label>
          ))
        }
      </PopoverButton>
    </div>
  );
}
