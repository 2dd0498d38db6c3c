"use client";
import { Keyboard, Waypoints } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { emptyGrid, type TypedGrid } from "@/core/data/typed-grid";
import type { Filter } from "@/core/plan/query";
import { offeredColumns } from "@/core/project/offered";
import type { TableInfo } from "@/core/project/schema";
import { BringIn } from "../shared/bring-in";
import { FilterEditor } from "../shared/filter-editor";
import { useFind } from "../shared/find-in-list";
import { ItemList } from "../shared/item-list";
import { toast } from "../shared/notice";
import { useImports, useProject } from "../shared/project-context";
import { useDraft } from "../shared/results";
import { useSelected } from "../shared/selected";
import { useTableProfile } from "../shared/table-profile";
import { CategoriesButton } from "./categories-button";
import { CellEditor } from "./cell-editor";
import { ColumnPanel } from "./column-panel";
import { DerivedPanel } from "./derived-panel";
import { LinksView } from "./links-view";
import { SaidOfImport } from "./said-of-import";
import { SourcePanel } from "./source-panel";
import { TableView } from "./table-view";
import { useTypedCells } from "./typed-cells";
import { useTypedTables } from "./typed-tables";

function Notice({
  role,
  tone,
  onDismiss,
  children,
}: {
  role: "alert" | "status";
  tone: string;
  onDismiss: () => void;
  children: ReactNode;
}) {
  return (
    <div role={role} className={`flex items-start gap-3 border-b px-4 py-2.5 ${tone}`}>
      <div className="flex-1 text-sm">{children}</div>
      <button type="button" className="text-sm underline" onClick={onDismiss}>
        Dismiss
      </button>
    </div>
  );
}

/** What the panel beside the rows says of the chosen column. */
function ColumnAside({
  table,
  name,
  profile,
  onName,
}: {
  table: TableInfo;
  name: string | null;
  profile: ReturnType<typeof useTableProfile>["profile"];
  onName: (name: string | null) => void;
}) {
  const facts = profile?.columns.find((c) => c.name === name) ?? null;
  const derived = table.derived.find((c) => c.name === name);
  const categories = name !== null && (facts?.type === "text" || facts?.type === "boolean") && (
    <CategoriesButton table={table.name} column={name} />
  );
  if (derived)
    return (
      <>
        <DerivedPanel
          key={`${table.id} ${derived.name}`}
          table={table}
          column={derived}
          profile={facts}
          onRenamed={onName}
        />
        {categories}
      </>
    );
  const column = table.columns.find((c) => c.name === name);
  return column ? (
    <>
      <ColumnPanel
        key={`${table.id} ${column.name}`}
        table={table}
        column={column}
        profile={facts}
        onRenamed={onName}
      />
      {categories}
    </>
  ) : null;
}

/**
 * The first step: the tables, their rows and columns, what the import guessed about them, and how
 * they are linked.
 */
export function DataScreen() {
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  const { draft } = useDraft();
  const [table, choose] = useSelected("table", tables);
  const find = useFind("Find a table", tables);
  const [view, setView] = useState<"table" | "links">("table");
  const [column, setColumn] = useState<string | null>(null);
  const [filters, setFilters] = useState<Filter[]>([]);
  const { typed: typing, setTyped } = useTypedCells(useProject((s) => s.id));
  const typedTables = useTypedTables();
  const { profile } = useTableProfile(table);
  const open = (id: string) => {
    choose(id);
    setView("table");
    setTyped(null);
    setColumn(null);
    setFilters([]);
  };
  /** Goes elsewhere on this screen, unless cells that are typed would be lost by it. */
  const unlessTyping = (go: () => void) => {
    if (typing) toast.error("Save the cells first, or press Do not save: they would be lost.");
    else go();
  };
  const type = (title: string, now: TypedGrid, into: TableInfo | null) =>
    setTyped({ title, table: into, past: [], now, future: [] });
  const typeNew = () => type("A new table", emptyGrid(), null);
  const typeIn = (into: TableInfo) =>
    void typedTables.read(into).then(
      (start) => type(`The cells of ${into.name}`, start, into),
      (error: Error) => toast.error(error.message),
    );
  const saveTyped = async (csv: string): Promise<string | null> => {
    try {
      const into = typing?.table;
      open(into ? await typedTables.replace(into, csv) : await typedTables.add(csv));
      return null;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  };
  // Another table can be named by the address too, as by a notice that offers to show it.
  const shownId = useRef(table?.id);
  useEffect(() => {
    if (shownId.current === table?.id) return;
    shownId.current = table?.id;
    setView("table");
    setColumn(null);
    setFilters([]);
  }, [table?.id]);
  const { problems, said, dismiss, dismissProblems } = useImports((s) => s);
  const heard = table ? said.get(table.id) : undefined;
  const names = table ? [...table.columns, ...table.derived].map((c) => c.name) : [];
  const chosen = column !== null && names.includes(column) ? column : (names[0] ?? null);
  const offered = table
    ? offeredColumns(draft, table.name).find((c) => c.own && c.name === chosen)
    : undefined;
  const withFilter = (next: Filter | null) =>
    setFilters((now) => [...now.filter((f) => f.column !== chosen), ...(next ? [next] : [])]);
  return (
    <div className="areas grid h-full grid-cols-[200px_minmax(0,1fr)_272px] max-lg:grid-cols-[168px_minmax(0,1fr)_240px]">
      <aside aria-label="Tables and links" className="areas-list flex min-h-0 flex-col border-r border-rule">
        <div className="p-3">
          <BringIn className="w-full" />
          <button type="button" className="button mt-2 w-full" onClick={() => unlessTyping(typeNew)}>
            <Keyboard size={14} /> Type a table
          </button>
          {find.field && <div className="mt-3">{find.field}</div>}
        </div>
        <ItemList label="Tables" className="min-h-0 flex-1 overflow-auto pb-3">
          {tables
            .filter((t) => find.fits(t.id))
            .map((t) => {
              const here = view === "table" && t.id === (typing ? typing.table?.id : table?.id);
              return (
                <button
                  key={t.id}
                  type="button"
                  data-item
                  title={t.name}
                  aria-current={here}
                  onClick={() => unlessTyping(() => open(t.id))}
                  className={`flex w-full items-baseline justify-between gap-2 border-l-[3px] px-3 py-2 text-left ${here ? "border-verdigris bg-tint font-semibold" : "border-transparent hover:bg-well"}`}
                >
                  <span className="truncate">{t.name}</span>
                  <span className="font-mono text-xs text-muted">
                    {t.rows.toLocaleString("en").replaceAll(",", "\u2009")}
                  </span>
                </button>
              );
            })}
        </ItemList>
        {tables.length > 1 && (
          <button
            type="button"
            aria-current={view === "links"}
            onClick={() => unlessTyping(() => setView("links"))}
            className={`flex items-center gap-2 border-t border-l-[3px] border-t-rule px-3 py-2.5 text-left ${view === "links" ? "border-l-verdigris bg-tint font-semibold" : "border-l-transparent hover:bg-well"}`}
          >
            <Waypoints size={14} /> <span className="flex-1">Links</span>
            <span className="font-mono text-xs text-muted">{links.length}</span>
          </button>
        )}
      </aside>
      <section
        className={`flex min-h-0 min-w-0 flex-col narrow:h-[max(26rem,70vh)] ${view === "links" || typing ? "col-span-2" : ""}`}
      >
        {problems.length > 0 && (
          <Notice
            role="alert"
            tone="max-h-44 overflow-auto border-signal bg-signal-tint"
            onDismiss={dismissProblems}
          >
            {problems.map((problem) => (
              <p key={problem}>{problem}</p>
            ))}
          </Notice>
        )}
        {table && heard && heard.notes.length + heard.doubts.length > 0 && view === "table" && (
          <Notice
            role="status"
            tone="max-h-44 overflow-auto border-amber-line bg-amber-tint"
            onDismiss={() => dismiss(table.id)}
          >
            <SaidOfImport table={table} said={heard} />
          </Notice>
        )}
        {typing ? (
          <CellEditor
            key={typing.title}
            typed={typing}
            onTyped={setTyped}
            onSave={saveTyped}
            onLeave={() => setTyped(null)}
          />
        ) : view === "links" ? (
          <LinksView />
        ) : table ? (
          <TableView
            key={table.id}
            table={table}
            profile={profile}
            chosen={chosen}
            onChoose={setColumn}
            filters={filters}
            onFilters={setFilters}
            onType={typeIn}
          />
        ) : (
          <div className="grid flex-1 place-items-center p-8 text-center">
            <div className="max-w-sm">
              <h1 className="text-lg">Begin with a table</h1>
              <p className="mt-2 text-muted">
                Drop a file anywhere, bring one in with the button, or paste cells that you copied from a
                spreadsheet. It can be CSV, TSV, JSON, NDJSON, XLSX or Parquet. Cavlo finds out how it is
                built and what each column holds, and you can change every guess afterwards. A few rows, such
                as targets by month, can be typed here.
              </p>
            </div>
          </div>
        )}
      </section>
      {view === "table" && !typing && (
        <aside
          aria-label="Column and table"
          className="areas-side min-h-0 overflow-auto border-l border-rule bg-panel"
        >
          {table && <ColumnAside table={table} name={chosen} profile={profile} onName={setColumn} />}
          {offered && (
            <section aria-label="Rows to show" className="border-b border-rule p-4 text-sm">
              <h2 className="section-title pb-2">Show only rows where</h2>
              <FilterEditor
                key={`${table?.id} ${chosen}`}
                column={offered}
                filter={filters.find((f) => f.column === chosen) ?? null}
                onChange={withFilter}
                onRemove={() => withFilter(null)}
              />
            </section>
          )}
          {table && <SourcePanel key={table.name} table={table} onReplaced={open} />}
        </aside>
      )}
    </div>
  );
}
