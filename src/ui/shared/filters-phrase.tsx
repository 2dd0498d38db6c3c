"use client";
import type { Filter } from "@/core/plan/query";
import type { OfferedColumn } from "@/core/project/offered";
import { filterText } from "@/core/rows/filter-text";
import { FilterList } from "./filter-list";
import { Phrase } from "./phrase";
import { PhrasePanel } from "./phrase-panel";

/** "for 2025 and Ferrow Isle": the rows a visual keeps, by any column that its table has or reaches. */
export function FiltersPhrase({
  columns,
  filters,
  onChange,
}: {
  columns: OfferedColumn[];
  filters: Filter[];
  onChange: (filters: Filter[]) => void;
}) {
  return (
    <Phrase label="Filter" text={filters.length ? filters.map(filterText).join(", ") : "all rows"}>
      {() => (
        <PhrasePanel label="Filter">
          <FilterList columns={columns} filters={filters} onChange={onChange} />
        </PhrasePanel>
      )}
    </Phrase>
  );
}
