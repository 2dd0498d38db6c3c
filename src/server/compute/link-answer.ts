import { cellText } from "@/core/data/profile";
import { factsOf, type LinkFacts, proposeLinks } from "@/core/engine/link-facts";
import type { TableSources } from "@/core/engine/table-source";
import type { Link } from "@/core/formula/links";
import { QueryError } from "@/core/plan/query-error";
import type { LinkAnswer } from "./protocol";

function measured(link: Link, sources: TableSources): LinkFacts {
  try {
    const from = sources.of(link.table).column(link.table, link.column).data;
    return factsOf(link, from, sources.of(link.to).column(link.to, link.key).data, (row) =>
      cellText({ name: link.column, data: from }, row),
    );
  } catch (error) {
    if (error instanceof QueryError)
      return { link, filled: 0, matched: 0, missing: [], problem: error.message };
    throw error;
  }
}

/**
 * How each link holds over the rows there are, and which more the names and values of the tables speak for.
 */
export function linkAnswer(links: Link[], sources: TableSources): LinkAnswer {
  const { scope } = sources;
  sources.checkStop();
  const tables = scope.tables.flatMap((t) => sources.find(t.name) ?? []);
  const held = links.map((l) => {
    sources.checkStop();
    return measured(l, sources);
  });
  return {
    links: held,
    proposed: proposeLinks(tables, scope.links ?? [], cellText, () => sources.checkStop()),
  };
}
