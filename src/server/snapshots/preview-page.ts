import { z } from "zod";
import { readProject } from "../store/projects";

/** What a preview shows, as the address of a snapshot says it. */
export const previewAddress = z.object({
  board: z.string().max(200).optional(),
  visuals: z.string().max(40_000).optional(),
  by: z.string().max(20_000).optional(),
  travel: z.enum(["answers", "rows"]).default("answers"),
  theme: z.enum(["light", "night", "auto"]).default("light"),
  revision: z.string().max(20).optional(),
});

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const escaped = (text: string) => text.toWellFormed().replace(/[&<>"]/g, (sign) => ENTITIES[sign]);

/** A page as somebody's could be, with the elements in it: what is taken out is seen so before it goes. */
export function previewPage(projectId: string, asked: z.infer<typeof previewAddress>): Response {
  const { document } = readProject(projectId);
  const { board, visuals = "", theme, ...rest } = asked;
  const query = new URLSearchParams({
    ...(board === undefined ? { visuals } : { board }),
    ...Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== undefined)),
  });
  query.delete("revision");
  const src = escaped(`/api/projects/${encodeURIComponent(projectId)}/snapshot?${query}`);
  const shown =
    board === undefined
      ? visuals.split(",").flatMap((id) => {
          const visual = document.visuals.find((v) => v.id === id);
          return visual
            ? `<div style="max-width:${visual.size.width}px"><cavlo-visual src="${src}" visual="${escaped(id)}" theme="${theme}"></cavlo-visual></div>`
            : [];
        })
      : [`<cavlo-board src="${src}" theme="${theme}"></cavlo-board>`];
  const ground = theme === "night" ? "#0d1213" : "#ffffff";
  const bar = theme === "night" ? "#243032" : "#e9e9e7";
  const html = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>A page</title>
<style>
body { margin: 0; padding: 20px; background: ${ground} }
i { display: block; height: 10px; border-radius: 5px; background: ${bar} }
i:first-child { width: 32%; margin-bottom: 12px }
i:nth-child(2) { width: 76%; margin-bottom: 22px }
cavlo-visual, cavlo-board { margin-bottom: 20px }
</style>
<script type="module" src="/embed/${board === undefined ? "cavlo.js" : "cavlo-board.js"}"></script>
</head>
<body>
<i></i><i></i>
${shown.join("\n")}
</body>
</html>`;
  return new Response(html, {
    headers: {
      "content-type": "text/html; charset=utf-8",
      "cache-control": "no-store",
    },
  });
}
