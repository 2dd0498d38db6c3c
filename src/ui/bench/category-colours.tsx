"use client";
import { own, withOwn } from "@/core/base/own";
import { type CategoriesOf, useCategoriesDialog } from "../shared/categories-store";
import { useProject } from "../shared/project-context";

/**
 * The colours of the categories that a visual shows, as they are now. One set here is of this visual alone;
 * those of the whole project are set with the categories of a column.
 */
export function CategoryColours({
  id,
  shown,
  colours,
  columns,
}: {
  id: string;
  shown: { label: string; color: string }[];
  colours: Record<string, string>;
  columns: CategoriesOf[];
}) {
  const open = useCategoriesDialog((s) => s.open);
  const apply = useProject((s) => s.apply);
  const set = (label: string, color: string | null) => {
    apply(
      { type: "change visual", id, change: { categoryColours: withOwn(colours, label, color) } },
      `colour ${id} ${label}`,
    );
  };
  if (shown.length === 0) return null;
  return (
    <details className="pt-2">
      <summary className="cursor-pointer py-1 text-sm text-muted">Colours of categories</summary>
      <ul className="flex flex-col gap-1 pt-1.5">
        {shown.slice(0, 24).map(({ label, color }) => (
          <li key={label} className="flex items-center gap-2 text-sm">
            <span className="min-w-0 flex-1 truncate">{label}</span>
            {own(colours, label) && (
              <button type="button" className="text-xs text-muted underline" onClick={() => set(label, null)}>
                as in all visuals
              </button>
            )}
            <input
              type="color"
              aria-label={`Colour of ${label} in this visual`}
              value={color}
              onChange={(e) => set(label, e.target.value)}
              className="h-6 w-8 rounded-sm border border-rule bg-sheet p-0.5"
            />
          </li>
        ))}
      </ul>
      {columns.map((of) => (
        <button
          key={`${of.table}.${of.column} ${of.by}`}
          type="button"
          className="button mt-2 w-full"
          onClick={() => open(of)}
        >
          {of.column} in all visuals …
        </button>
      ))}
    </details>
  );
}
