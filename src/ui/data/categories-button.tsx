"use client";
import { Palette } from "lucide-react";
import { homeOf } from "@/core/formula/meeting";
import { scopeOf } from "@/core/project/names";
import { useCategoriesDialog } from "../shared/categories-store";
import { useDraft } from "../shared/results";

/** Opens the categories of a column: their order and colours in every visual. */
export function CategoriesButton({ table, column }: { table: string; column: string }) {
  const { draft } = useDraft();
  const open = useCategoriesDialog((s) => s.open);
  return (
    <button
      type="button"
      className="button mx-4 my-3 h-auto max-w-[calc(100%-2rem)] whitespace-normal py-1.5 text-balance text-left"
      onClick={() => open({ ...homeOf(scopeOf(draft), { table, column }), palette: "" })}
    >
      <Palette size={13} /> Order and colours of its categories …
    </button>
  );
}
