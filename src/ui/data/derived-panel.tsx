"use client";
import { Trash2 } from "lucide-react";
import { useMemo } from "react";
import { listed } from "@/core/base/listed";
import { checkFormula } from "@/core/formula/check";
import { usesOfColumn } from "@/core/project/column-uses";
import { scopeOf } from "@/core/project/names";
import type { TableInfo } from "@/core/project/schema";

import type { TableProfile } from "@/server/compute/protocol";
import { FormulaEditor } from "../measures/formula-editor";
import { ProblemList } from "../measures/problem-list";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject } from "../shared/project-context";
import { useTellRemoved } from "../shared/tell-edit";
import { ColumnFacts } from "./column-facts";
import { columnNameProblem } from "./column-panel";

interface Props {
  table: TableInfo;
  column: TableInfo["derived"][number];
  profile: TableProfile["columns"][number] | null;
  onRenamed: (name: string | null) => void;
}

/** A derived column: its name and the row-level formula that computes it. */
export function DerivedPanel({ table, column, profile, onRenamed }: Props) {
  const document = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const tellRemoved = useTellRemoved();
  const scope = scopeOf(document);
  const checked = useMemo(
    () => checkFormula(column.formula, scope, table.name, "derived", `${table.name}.${column.name}`),
    [column.formula, column.name, scope, table.name],
  );
  const write = (formula: string) =>
    apply(
      { type: "change derived", table: table.id, column: column.name, change: { formula } },
      `derived ${table.id} ${column.name}`,
    );
  const remove = () => {
    const uses = usesOfColumn(document, table.name, column.name);
    if (uses.length)
      return void toast.error(`${column.name} is used in ${listed(uses)}. Take it out there first.`);
    apply({ type: "remove derived", table: table.id, column: column.name });
    onRenamed(null);
    tellRemoved(`${column.name} is removed.`);
  };
  return (
    <section aria-label={`Column ${column.name}`} className="flex flex-col gap-2 border-b border-rule p-4">
      <div className="flex items-center justify-between">
        <h2 className="section-title">Derived column</h2>
        <button
          type="button"
          className="icon-button size-6"
          aria-label={`Remove ${column.name}`}
          onClick={remove}
        >
          <Trash2 size={14} />
        </button>
      </div>
      <Labelled label="Name">
        {(id) => (
          <CommitField
            id={id}
            value={column.name}
            check={(text) => columnNameProblem(table, column.name, text)}
            onCommit={(text) => {
              apply({
                type: "change derived",
                table: table.id,
                column: column.name,
                change: { name: text.trim() },
              });
              onRenamed(text.trim());
            }}
          />
        )}
      </Labelled>
      <FormulaEditor
        label={`Formula of ${column.name}`}
        value={column.formula}
        scope={scope}
        table={table.name}
        level="row"
        problems={checked.problems}
        onChange={write}
      />
      {checked.problems.length > 0 ? (
        <ProblemList formula={column.formula} problems={checked.problems} onMend={write} />
      ) : (
        <p className="text-sm text-muted">
          One {checked.type === "null" ? "value" : checked.type} for each row.
        </p>
      )}
      <ColumnFacts profile={profile} />
    </section>
  );
}
