"use client";
import { useMemo, useState } from "react";
import { listed } from "@/core/base/listed";
import { KINDS, kindOf } from "@/core/kinds";
import { kindsCalled } from "@/core/kinds/also-called";
import { homeTableOf } from "@/core/project/home-table";
import type { Measure, Project, Visual } from "@/core/project/schema";
import { whyNoSize } from "@/core/view/drawable";
import { firstSetUp, proposedIn, saysNothing, withoutProposals } from "@/core/view/first-set-up";
import type { NumberFacts } from "@/core/view/number-sense";
import { sceneOf } from "@/core/view/picture";
import { proposedMeasures } from "@/core/view/proposed-measures";
import { sayRole } from "@/core/view/sentence";
import type { TableProfile } from "@/server/compute/protocol";
import { BringIn } from "../shared/bring-in";
import { Busy } from "../shared/busy";
import { Choose } from "../shared/choose";
import { useDesign } from "../shared/design";
import { Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { StaticPicture } from "../shared/static-picture";
import { StepLink } from "../shared/step-link";
import { useTableFacts } from "../shared/table-facts";
import { useTableProfile } from "../shared/table-profile";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";

/** What a draft supposes, in the words of the sentence. */
const supposed = (draft: Visual, project: Project) =>
  proposedIn(draft)
    .map((role) => sayRole(role, { visual: draft, project, scale: { minimum: 0, maximum: 0 }, pictured: [] }))
    .join(", ")
    // A number and its unit stay on one line.
    .replaceAll("\u2009", "\u202f");

/** The measures that a project has, and those that its columns offer besides. */
function useMeasures(table: string | null): { own: Measure[]; proposed: Measure[]; isAsked: boolean } {
  const project = useProject((s) => s.document);
  const { tables, links, measures, inputs, conventions } = project;
  const { profile, isAsked } = useTableProfile(tables.find((t) => t.id === table) ?? tables[0] ?? null);
  const proposed = useMemo(
    () =>
      proposedMeasures({ tables, links, measures, inputs, conventions }, (column) =>
        column.table === (tables.find((t) => t.id === table) ?? tables[0])?.name
          ? numberFactsIn(profile, column.column)
          : null,
      ),
    [tables, links, measures, inputs, conventions, profile, table],
  );
  const name = tables.find((t) => t.id === table)?.name ?? null;
  const first = (m: Measure) => Number(name !== null && m.table !== name);
  return { own: measures, proposed: proposed.toSorted((a, b) => first(a) - first(b)), isAsked };
}

/** What a table's profile tells of the numbers of a column. */
function numberFactsIn(profile: TableProfile | null, name: string): NumberFacts | null {
  const column = profile?.columns.find((c) => c.name === name);
  if (!profile || column?.type !== "number") return null;
  const { distinct, min, max, whole, nulls } = column;
  return { known: profile.rows - nulls, distinct, min: Number(min), max: Number(max), whole };
}

/** How many proposals stand there at once: fewer where the project has measures of its own. */
const SHOWN_PROPOSALS = { alone: 12, besides: 5 };

/** Measures that the columns offer: a click draws every kind with one. */
function Proposals({
  measures,
  most,
  chosen,
  onChoose,
}: {
  measures: Measure[];
  most: number;
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const several = new Set(measures.map((m) => m.table)).size > 1;
  const [all, setAll] = useState(false);
  const shown = all ? measures : measures.slice(0, most);
  return (
    <fieldset
      aria-label="Measures that your columns offer"
      className="mt-3 flex flex-wrap items-center gap-1.5"
    >
      <legend className="float-left mr-1 py-1 text-sm text-muted">From your columns</legend>
      {shown.map((m) => (
        <button
          key={m.id}
          type="button"
          aria-pressed={m.id === chosen}
          title={`${m.formula}${several ? `, over ${m.table}` : ""}`}
          className={`h-7 max-w-60 truncate rounded-full border px-3 text-sm ${m.id === chosen ? "border-verdigris bg-tint font-semibold text-verdigris-deep" : "border-rule bg-sheet hover:border-verdigris"}`}
          onClick={() => onChoose(m.id)}
        >
          {m.label}
        </button>
      ))}
      {measures.length > shown.length && (
        <button type="button" className="h-7 px-2 text-sm text-muted underline" onClick={() => setAll(true)}>
          {measures.length - shown.length} more
        </button>
      )}
    </fieldset>
  );
}

/** What stands where nothing can be drawn yet. */
const NoTable = () => (
  <div className="grid h-full place-items-center p-8 text-center">
    <div className="flex max-w-sm flex-col items-center">
      <h1 className="text-lg">A visual begins with a table</h1>
      <p className="mt-2 mb-4 text-muted">
        Drop a file anywhere, or paste cells that you copied from a spreadsheet: its columns are drawn at
        once.
      </p>
      <BringIn />
    </div>
  </div>
);

/**
 * Where a new visual begins: every kind, drawn with a measure of the project's own or one that its columns
 * offer, which comes with the visual. `table` is the id of the table whose columns come first.
 */
export function Gallery({
  table,
  called = "",
  onPick,
  onCancel,
}: {
  table: string | null;
  /** What kinds are searched by at first. */
  called?: string;
  onPick: (visual: Visual, proposed: Measure | null) => void;
  onCancel?: () => void;
}) {
  const project = useProject((s) => s.document);
  const projectId = useProject((s) => s.id);
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const { own, proposed, isAsked } = useMeasures(table);
  const [wanted, setWanted] = useState("");
  const sized = own.filter((m) => whyNoSize(m, project) === null);
  const measures = [...(table ? proposed : []), ...sized, ...proposed];
  const measure = measures.find((m) => m.id === wanted) ?? measures[0];
  const isProposed = measure !== undefined && proposed.includes(measure);
  const facts = useTableFacts(homeTableOf(measure, project));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [find, setFind] = useState(called);
  const found = kindsCalled(find, KINDS);
  const begun =
    measure && facts && !isAsked
      ? found.map(({ kind, name, dials }) => ({
          name,
          draft: { ...firstSetUp(kindOf(kind), measure, project, facts), dials },
        }))
      : [];
  const isSilent = ({ draft }: { draft: Visual }) => saysNothing(kindOf(draft.kind), draft, measure, project);
  const silent = begun.filter(isSilent);
  const shown = begun.filter((b) => !isSilent(b));
  const first = shown.map((b) => b.draft);
  const drafts = first.map((draft) => (left.has(draft.kind) ? withoutProposals(draft) : draft));
  const turn = (kind: string) => {
    const next = new Set(left);
    if (!next.delete(kind)) next.add(kind);
    setLeft(next);
  };
  const data = useVisualsData(drafts, isProposed ? measure : null);
  if (!measure) return <NoTable />;
  return (
    <section
      aria-label="New visual"
      className="h-full overflow-auto p-6 narrow:h-auto narrow:overflow-visible narrow:p-4"
    >
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 className="text-xl">New visual</h1>
        {own.length > 0 && (
          <div className="w-64">
            <Labelled label="Show" stacked>
              {(id) => (
                <Choose
                  id={id}
                  value={isProposed ? "" : measure.id}
                  options={[
                    ...(isProposed ? [{ value: "", label: measure.label }] : []),
                    ...own.map((m) => ({ value: m.id, label: m.label, why: whyNoSize(m, project) })),
                  ]}
                  onChange={setWanted}
                />
              )}
            </Labelled>
          </div>
        )}
        <div className="w-64">
          <Labelled label="As" stacked>
            {(id) => (
              <input
                id={id}
                type="search"
                value={find}
                maxLength={80}
                placeholder="Find a form: pie, meter, card …"
                onChange={(event) => setFind(event.target.value)}
                className="field"
              />
            )}
          </Labelled>
        </div>
        <StepLink to={`/p/${projectId}/contact-sheet`} className="button ml-auto">
          Every kind in every finish
        </StepLink>
        {onCancel && (
          <button type="button" className="button" onClick={onCancel}>
            Cancel
          </button>
        )}
      </div>
      {proposed.length > 0 && (
        <Proposals
          measures={proposed}
          most={own.length > 0 ? SHOWN_PROPOSALS.besides : SHOWN_PROPOSALS.alone}
          chosen={isProposed ? measure.id : ""}
          onChoose={setWanted}
        />
      )}
      <div className="mt-5 grid max-w-6xl grid-cols-4 gap-4 max-lg:grid-cols-3 narrow:grid-cols-2">
        {drafts.map((draft, i) => (
          <div
            key={`${draft.kind} ${shown[i].name}`}
            className="rounded-lg border border-rule bg-sheet p-3 transition-colors hover:border-verdigris"
          >
            <button
              type="button"
              aria-label={shown[i].name}
              aria-describedby={`purpose-${i}`}
              onClick={() => onPick(draft, isProposed ? measure : null)}
              className="block w-full text-left"
            >
              <Busy pending={data[i].pending}>
                <StaticPicture
                  scene={sceneOf(
                    { ...draft, dials: { ...draft.dials, "frame.border": false, "heading.shown": false } },
                    data[i].data,
                    design,
                    { size: { width: 320, height: 230 }, theme },
                  )}
                  label=""
                  className="h-auto w-full"
                />
              </Busy>
              <span className="mt-2 block font-semibold">
                {shown[i].name}
                {shown[i].name !== kindOf(draft.kind).label && (
                  <span className="font-normal text-muted"> · {kindOf(draft.kind).phrase}</span>
                )}
              </span>
              <span id={`purpose-${i}`} className="mt-0.5 block text-sm text-muted">
                {kindOf(draft.kind).purpose}
                {data[i].data.problem && <span className="sr-only"> {data[i].data.problem}</span>}
              </span>
            </button>
            {supposed(first[i], project) && (
              <p className="mt-1.5 border-t border-rule pt-1.5 text-sm text-muted">
                {left.has(draft.kind) ? "Left out: " : "Proposed: "}
                {supposed(first[i], project)}{" "}
                <button
                  type="button"
                  className="min-h-6 underline hover:text-ink"
                  aria-label={`${left.has(draft.kind) ? "Take" : "Leave out"} what ${shown[i].name} proposes`}
                  onClick={() => turn(draft.kind)}
                >
                  {left.has(draft.kind) ? "Take it" : "Leave it out"}
                </button>
              </p>
            )}
          </div>
        ))}
      </div>
      {found.length === 0 && (
        <p role="status" className="mt-2 text-muted">
          Nothing is called so here. Empty the field to see all kinds.
        </p>
      )}
      {silent.length > 0 && (
        <p className="mt-4 max-w-6xl text-sm text-muted">
          {listed(
            silent.map((b) => b.name),
            silent.length,
          )}
          : not here. {measure.label} is a share of the total, and without groups that is always all of it.
        </p>
      )}
    </section>
  );
}
