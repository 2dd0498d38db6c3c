import { z } from "zod";
import { findNamed } from "@/core/base/names";
import type { Value } from "@/core/base/value";
import type { Filter, Result } from "@/core/plan/query";
import { FRAME_LIMITS } from "@/core/project/frame-limits";
import { homeTableOfVisual } from "@/core/project/home-table";
import { offeredColumns } from "@/core/project/offered";
import type { Project, Visual } from "@/core/project/schema";
import { pictureOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { toVisualData } from "@/core/view/visual-data";
import { fontsOf } from "@/render/svg-fonts";
import { sceneToSvg } from "@/render/svg-text";
import { resultFile, TABLE_FORMATS } from "@/render/table/table-file";
import { componentFile } from "./component-file";
import { attachment } from "./http/download";
import { HttpError } from "./http/errors";
import { schemaProblem } from "./http/handle";
import { drawPng } from "./pictures/client";
import { answerQuery } from "./results";
import { settings } from "./settings";
import { readProject } from "./store/projects";

const pixels = ({ least, most }: { least: number; most: number }) =>
  z.coerce.number().int().min(least).max(most).optional();

/** What the address of a visual can say besides values of inputs and filters. */
export const visualAddress = z.object({
  width: pixels(FRAME_LIMITS.width),
  height: pixels(FRAME_LIMITS.height),
  theme: z.enum(["light", "night"]).default("light"),
  scale: z.coerce.number().min(1).max(4).default(1),
  download: z.enum(["1"]).optional(),
  fonts: z.enum(["1"]).optional(),
});

/** A value from an address in the type that its input or column has. */
function valueFrom(text: string, type: string, name: string): Value {
  if (type === "number") {
    const value = Number(text);
    if (text.trim() === "" || !Number.isFinite(value))
      throw new HttpError(400, "bad_value", `${name} needs a number, not “${text}”.`);
    return value;
  }
  return type === "boolean" ? text === "true" : text;
}

/**
 * Reads `input.NAME` and `filter.COLUMN` (repeated for several values; a date also takes a bare year) from an
 * address.
 */
function overrides(
  params: URLSearchParams,
  project: Project,
  visual: Visual,
): { inputs: Record<string, Value>; filters: Filter[] } {
  const inputs = new Map<string, Value>();
  const filters: Filter[] = [];
  const table = homeTableOfVisual(visual, project);
  const columns = offeredColumns(project, table);
  for (const key of new Set(params.keys())) {
    const [kind, name] = [key.slice(0, key.indexOf(".")), key.slice(key.indexOf(".") + 1)];
    if (kind === "input") {
      const input = findNamed(project.inputs, name);
      if (!input) throw new HttpError(400, "unknown_input", `There is no input called “${name}”.`);
      inputs.set(input.name, valueFrom(params.get(key) ?? "", input.type, key));
    } else if (kind === "filter") {
      const column = findNamed(columns, name);
      if (!column)
        throw new HttpError(
          400,
          "unknown_column",
          `The table ${table ?? ""} has no column “${name}” to filter by, and no link leads to one.`,
        );
      const values = params.getAll(key);
      const years = column.type === "date" && values.every((v) => /^\d{4}$/.test(v));
      filters.push(
        years
          ? { column: column.name, by: "year", in: values.map(Number) }
          : { column: column.name, in: values.map((v) => valueFrom(v, column.type, key)) },
      );
    }
  }
  return { inputs: Object.fromEntries(inputs), filters };
}

/** Draws a visual on the server, or gives its numbers: the file name says which visual and in what form. */
export async function answerVisual(
  projectId: string,
  file: string,
  params: URLSearchParams,
  signal?: AbortSignal,
): Promise<Response> {
  const m = /^(.+)\.(svg|png|json|csv|ndjson|xlsx|tsx)$/.exec(file);
  if (!m)
    throw new HttpError(
      404,
      "no_form",
      "A visual is given as .svg, .png, .json, .csv, .ndjson, .xlsx or .tsx.",
    );
  const parsed = visualAddress.safeParse(Object.fromEntries(params));
  if (!parsed.success) throw schemaProblem(parsed.error);
  const { width, height, theme, scale, download, fonts } = parsed.data;
  const { document } = readProject(projectId);
  const visual = document.visuals.find((v) => v.id === m[1]);
  if (!visual) throw new HttpError(404, "no_visual", "There is no such visual in this project.");
  const { inputs, filters } = overrides(params, document, visual);
  const query = toQuery(visual, document, filters, inputs);
  const answer = query ? await answerQuery(projectId, document, query, signal) : null;
  if (answer && "error" in answer)
    throw new HttpError(409, answer.error.code, `${visual.name} cannot be drawn: ${answer.error.message}`);
  const result: Result | null = answer;
  const named = (type: string, extension: string): HeadersInit => ({
    "content-type": type,
    "cache-control": "no-store",
    ...(download ? attachment(`${visual.name}.${extension}`) : {}),
  });
  const scene = () =>
    pictureOf(visual, document, result, {
      theme,
      size: { width: width ?? visual.size.width, height: height ?? visual.size.height },
      inputs,
      filters,
    });
  if (m[2] === "svg") {
    const drawn = scene();
    const style = fonts ? fontsOf(drawn, settings.root) : undefined;
    return new Response(sceneToSvg(drawn, { title: visual.name, style, prefix: "cavlo" }), {
      headers: named("image/svg+xml; charset=utf-8", "svg"),
    });
  }
  if (m[2] === "png")
    return new Response((await drawPng(scene(), scale, projectId, signal)) as Uint8Array<ArrayBuffer>, {
      headers: named("image/png", "png"),
    });
  if (!result) throw new HttpError(409, "no_measure", `${visual.name} has no measure yet.`);
  if (m[2] === "tsx")
    return new Response(componentFile(document, visual, result), {
      headers: named("text/plain; charset=utf-8", "tsx"),
    });
  if (m[2] === "csv" || m[2] === "ndjson" || m[2] === "xlsx")
    return new Response(new Uint8Array(resultFile(m[2], result)), {
      headers: named(TABLE_FORMATS[m[2]], m[2]),
    });
  return Response.json(
    {
      visual: visual.name,
      kind: visual.kind,
      data: toVisualData(visual, document, result, { inputs, filters }),
      result,
    },
    { headers: named("application/json; charset=utf-8", "json") },
  );
}
