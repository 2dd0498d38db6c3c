"use client";
import { ToggleGroup } from "radix-ui";
import type { Value } from "@/core/base/value";
import { chosenAlone, type FilterOfBoard, toggled } from "@/core/view/board-state";
import { inLine } from "@/core/view/column-choices";
import { useColumnValues } from "../shared/column-values";
import { MoreValues } from "./more-values";

/** The button of all values, beside those of values, which begin with their type. */
const ALL = "";
const nameOf = (value: Value) => `${typeof value} ${value}`;

/**
 * A filter as a row of buttons: all, or any of the values. Several values are chosen with Ctrl, or in the
 * list of the rest.
 */
export function FilterControl({
  control,
  chosen,
  onChoose,
}: {
  control: FilterOfBoard;
  chosen: Value[];
  onChoose: (values: Value[]) => void;
}) {
  const values = useColumnValues(control.table, control.column, control.by);
  const { shown, rest } = inLine(values);
  const restChosen = rest.filter((v) => chosen.includes(v.value));
  const button = (on: boolean) =>
    `h-7 border-l border-rule px-2.5 text-sm first:border-l-0 ${on ? "bg-tint font-semibold text-verdigris-deep" : "text-muted hover:bg-well hover:text-ink"}`;
  return (
    <fieldset className="min-w-0">
      <legend className="block max-w-52 truncate pb-0.5 text-xs text-muted">{control.label}</legend>
      <ToggleGroup.Root
        type="multiple"
        aria-label={control.label}
        value={chosen.length === 0 ? [ALL] : chosen.map(nameOf)}
        className="flex overflow-hidden rounded-sm border border-rule bg-sheet"
      >
        <ToggleGroup.Item value={ALL} className={button(chosen.length === 0)} onClick={() => onChoose([])}>
          All
        </ToggleGroup.Item>
        {shown.map(({ value, label }) => (
          <ToggleGroup.Item
            key={nameOf(value)}
            value={nameOf(value)}
            className={`${button(chosen.includes(value))} max-w-36 truncate`}
            onClick={(e) =>
              onChoose(
                e.ctrlKey || e.metaKey || e.shiftKey ? toggled(chosen, value) : chosenAlone(chosen, value),
              )
            }
          >
            {label}
          </ToggleGroup.Item>
        ))}
        {rest.length > 0 && (
          <MoreValues
            label={control.label}
            text={
              restChosen.length === 1
                ? restChosen[0].label
                : restChosen.length
                  ? `${restChosen.length} more chosen`
                  : `${rest.length} more`
            }
            on={restChosen.length > 0}
            values={values}
            chosen={chosen}
            onToggle={(value) => onChoose(toggled(chosen, value))}
            className={button(restChosen.length > 0)}
          />
        )}
      </ToggleGroup.Root>
    </fieldset>
  );
}
