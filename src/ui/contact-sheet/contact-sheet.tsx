"use client";
import { useMemo } from "react";
import { KINDS } from "@/core/kinds";
import { FINISHES } from "@/core/kinds/finishes";
import { homeTableOf } from "@/core/project/home-table";
import { firstSetUp } from "@/core/view/first-set-up";
import { sceneOf } from "@/core/view/picture";
import { useDesign } from "../shared/design";
import { useProject } from "../shared/project-context";
import { StaticPicture } from "../shared/static-picture";
import { useTableFacts } from "../shared/table-facts";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";

const SIZE = { width: 300, height: 220 };

/** Every kind in every finish, drawn from the project's own visuals where it has one of the kind. */
export function ContactSheet() {
  const project = useProject((s) => s.document);
  const design = useDesign();
  const theme = useTheme((s) => s.theme);
  const measure = project.measures[0];
  const facts = useTableFacts(homeTableOf(measure, project));
  const visuals = useMemo(
    () =>
      KINDS.flatMap(
        (kind) =>
          project.visuals.find((v) => v.kind === kind.id) ??
          (measure && facts ? [firstSetUp(kind, measure, project, facts)] : []),
      ),
    [project, measure, facts],
  );
  const data = useVisualsData(visuals);
  const finishes = [...FINISHES, ...project.finishes.map((f) => ({ id: f.id, name: f.name }))];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must do so by keyboard
    <section aria-label="Contact sheet" tabIndex={0} className="h-full overflow-auto p-5">
      <h1 className="text-xl">Contact sheet</h1>
      <p className="mt-1 text-muted">Every kind in every finish.</p>
      <table className="mt-4 w-full min-w-[1100px] table-fixed border-separate border-spacing-2">
        <thead>
          <tr>
            <th className="w-20 text-left text-xs font-medium text-muted">Kind</th>
            {finishes.map((f) => (
              <th key={f.id} scope="col" className="text-left text-sm font-semibold">
                {f.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {visuals.map((visual, i) => (
            <tr key={visual.id}>
              <th scope="row" className="w-20 pr-2 text-left align-top text-sm font-medium">
                {KINDS.find((k) => k.id === visual.kind)?.label}
              </th>
              {finishes.map((f) => (
                <td key={f.id}>
                  <StaticPicture
                    scene={sceneOf(
                      {
                        ...visual,
                        finish: f.id,
                        dials: { ...visual.dials, "heading.shown": false, "frame.padding": 10 },
                      },
                      data[i].data,
                      design,
                      {
                        size: SIZE,
                        theme,
                      },
                    )}
                    label={`${visual.name}, ${f.name}`}
                    className="h-auto w-full"
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
