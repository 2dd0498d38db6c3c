"use client";
import { useQuery } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { useState } from "react";
import { listed } from "@/core/base/listed";
import { sameName } from "@/core/base/names";
import type { LinkFacts } from "@/core/engine/link-facts";
import { type Link, linksProblem } from "@/core/formula/links";
import { breaksOf } from "@/core/project/breaks";
import type { TableLink } from "@/core/project/schema";

import { api } from "../shared/api";
import { Choose } from "../shared/choose";
import { newId } from "../shared/ids";
import { toast } from "../shared/notice";
import { useProject, useProjectStore } from "../shared/project-context";
import { useTellRemoved } from "../shared/tell-edit";
import { LinkDiagram } from "./link-diagram";

const count = (n: number) => n.toLocaleString("en").replaceAll(",", "\u2009");

/** How the links hold over the rows there are, and what could be linked. */
function useLinkFacts() {
  const store = useProjectStore();
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  const { data } = useQuery({
    queryKey: ["links", JSON.stringify([links, tables.map((t) => [t.id, t.name, t.columns, t.derived])])],
    queryFn: async () => {
      await store.getState().flush();
      return api.links(
        store.getState().id,
        links.map(({ id: _id, ...link }) => link),
      );
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data?.links ?? null;
}

function matchText(facts: LinkFacts | undefined): { text: string; bad: boolean } {
  if (!facts) return { text: "…", bad: false };
  if (facts.problem) return { text: facts.problem, bad: true };
  if (facts.filled === 0) return { text: "no row has a value here", bad: true };
  const missing = facts.filled - facts.matched;
  if (missing === 0) return { text: `all ${count(facts.filled)} rows match`, bad: false };
  const examples = facts.missing.length ? `: ${facts.missing.map((m) => `“${m}”`).join(", ")}` : "";
  return {
    text: `${((facts.matched / facts.filled) * 100).toFixed(1)} % of ${count(facts.filled)} rows match; ${count(missing)} have no match${examples}`,
    bad: true,
  };
}

const linkName = (l: Link) => `${l.table}.${l.column} → ${l.to}.${l.key}`;

function NewLink({ onAdd }: { onAdd: (link: Link) => void }) {
  const tables = useProject((s) => s.document.tables);
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const options = tables.flatMap((t) =>
    t.columns.map((c) => ({ value: JSON.stringify([t.name, c.name]), label: `${t.name}.${c.name}` })),
  );
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const [table, column] = JSON.parse(from) as [string, string];
        const [target, key] = JSON.parse(to) as [string, string];
        onAdd({ table, column, to: target, key });
        setFrom("");
        setTo("");
      }}
    >
      <Choose
        label="From many rows"
        value={from}
        options={[{ value: "", label: "Many rows of …" }, ...options]}
        onChange={setFrom}
      />
      <span className="text-muted" aria-hidden="true">
        →
      </span>
      <Choose
        label="To one row"
        value={to}
        options={[{ value: "", label: "One row of …" }, ...options]}
        onChange={setTo}
      />
      <button type="submit" className="button" disabled={!from || !to}>
        <Plus size={13} /> Link
      </button>
    </form>
  );
}

/**
 * How tables are tied: a diagram, each link with the share of rows that match, and links that Cavlo proposes.
 */
export function LinksView() {
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  const apply = useProject((s) => s.apply);
  const store = useProjectStore();
  const tellRemoved = useTellRemoved();
  const facts = useLinkFacts();
  const add = (link: Link) => {
    if (links.some((l) => sameName(linkName(l), linkName(link))))
      return void toast.error("This link is there already.");
    const problem =
      link.table === link.to ? "A table cannot be linked to itself." : linksProblem([...links, link]);
    if (problem) return void toast.error(problem, { duration: 10_000 });
    apply({ type: "add link", link: { id: newId(), ...link } });
  };
  const remove = (link: TableLink) => {
    const before = store.getState().document;
    apply({ type: "remove link", id: link.id });
    const broken = breaksOf(before, store.getState().document);
    const said = broken.length
      ? ` ${listed(broken)} no longer ${broken.length === 1 ? "works" : "work"} without it.`
      : "";
    tellRemoved(`The link from ${link.table} to ${link.to} is removed.${said}`, said ? 12_000 : undefined);
  };
  const held = (link: Link) => facts?.links.find((f) => linkName(f.link) === linkName(link));
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-5 overflow-auto p-5">
      <div>
        <h1 className="text-lg">Links</h1>
        <p className="mt-1 max-w-2xl text-sm text-muted">
          A link ties many rows of one table to one row of another. A measure can then be split and filtered
          by the other table's columns, and measures of several tables meet in one visual.
        </p>
      </div>
      {links.length > 0 && <LinkDiagram tables={tables} links={links} />}
      <section aria-label="Links between tables" className="flex flex-col gap-1.5">
        {links.map((link) => {
          const { text, bad } = matchText(held(link));
          return (
            <div
              key={link.id}
              className="flex max-w-4xl items-center gap-3 rounded-md border border-rule bg-sheet px-3 py-1.5"
            >
              <span className="shrink-0 font-mono text-sm">{linkName(link)}</span>
              <span className={`min-w-0 flex-1 text-sm ${bad ? "text-signal" : "text-muted"}`}>{text}</span>
              <button
                type="button"
                className="icon-button size-6"
                aria-label={`Remove the link from ${link.table} to ${link.to}`}
                onClick={() => remove(link)}
              >
                <X size={13} />
              </button>
            </div>
          );
        })}
        {links.length === 0 && <p className="text-muted">No tables are linked yet.</p>}
        <div className="mt-1 max-w-2xl">
          <NewLink onAdd={add} />
        </div>
      </section>
      {facts && facts.proposed.length > 0 && (
        <section aria-label="Proposed links" className="flex flex-col gap-1.5">
          <h2 className="section-title">Proposed from names and values</h2>
          {facts.proposed.map((f) => (
            <div
              key={linkName(f.link)}
              className="flex max-w-4xl items-center gap-3 rounded-md border border-dashed border-muted px-3 py-1.5"
            >
              <span className="shrink-0 font-mono text-sm">{linkName(f.link)}</span>
              <span className="min-w-0 flex-1 text-sm text-muted">{matchText(f).text}</span>
              <button
                type="button"
                className="button"
                aria-label={`Add the link from ${f.link.table} to ${f.link.to}`}
                onClick={() => add(f.link)}
              >
                Add
              </button>
            </div>
          ))}
        </section>
      )}
    </div>
  );
}
