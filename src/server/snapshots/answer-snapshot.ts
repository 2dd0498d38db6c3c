import { promisify } from "node:util";
import { brotliCompress } from "node:zlib";
import { z } from "zod";
import { DATE_BUCKETS } from "@/core/base/calendar";
import type { Taken } from "@/core/snapshot/askable";
import type { Snapshot } from "@/core/snapshot/snapshot";
import { attachment } from "../http/download";
import { HttpError } from "../http/errors";
import { listInAddress } from "../http/filters-in-address";
import { readProject } from "../store/projects";
import { aloneFile } from "./alone-file";
import { folderArchive, folderFiles, snapshotFile } from "./element-folder";
import { makeSnapshot, type SnapshotAbout, type Travel } from "./make-snapshot";

const touched = z.array(
  z.strictObject({ column: z.string().min(1).max(320), by: z.enum(DATE_BUCKETS).optional() }),
);

const compress = promisify(brotliCompress);

/** What of a project is taken out: a board, or visuals (their ids, parted by commas) with the columns that filter. */
export const snapshotAddress = z.object({
  board: z.string().max(200).optional(),
  visuals: z.string().max(40_000).optional(),
  by: listInAddress("by is").pipe(touched.max(20)),
  travel: z.enum(["answers", "rows"]).default("answers"),
  form: z.enum(["json", "html", "folder", "about"]).default("json"),
  theme: z.enum(["light", "night", "auto"]).default("auto"),
  download: z.enum(["1"]).optional(),
});

/** A snapshot as it leaves, with what is to be known of it. */
interface Made {
  key: string;
  json: string;
  about: SnapshotAbout;
}

/** The last ones: who looks at what travels takes it next. */
const lately: Made[] = [];
const MOST_KEPT = 4;
/** Larger ones are made anew each time, in characters. */
const LARGEST_KEPT = 20_000_000;

function takenBy({ board, visuals, by }: z.infer<typeof snapshotAddress>): Taken {
  if (board !== undefined) return { board };
  const ids = (visuals ?? "").split(",").filter(Boolean);
  if (ids.length === 0)
    throw new HttpError(400, "nothing", "Say what to take out: board=ID, or visuals=ID,ID.");
  return { visuals: [...new Set(ids)], filters: by };
}

/** A snapshot of what is saved, made once for the same revision. */
export async function snapshotFor(
  projectId: string,
  taken: Taken,
  travel: Travel,
  signal?: AbortSignal,
): Promise<Made> {
  const { document, revision } = readProject(projectId);
  const key = JSON.stringify([projectId, revision, taken, travel, new Date().toDateString()]);
  const known = lately.find((m) => m.key === key);
  if (known) return known;
  const { snapshot, about } = await makeSnapshot(projectId, document, { taken, travel }, signal);
  const made = { key, json: JSON.stringify(snapshot), about };
  if (made.json.length <= LARGEST_KEPT) lately.unshift(made);
  lately.splice(MOST_KEPT);
  return made;
}

/** What a snapshot is called: its board, or its first visual. */
const nameOf = ({ project }: Snapshot): string =>
  project.boards[0]?.name ?? project.visuals[0]?.name ?? project.name;

const sizes = new Map<string, Promise<number>>();

/** How large a file is as servers of files pack it; fonts are packed already. Modules are packed once. */
async function packedSize(path: string, bytes: Buffer): Promise<number> {
  if (path.endsWith(".woff2")) return bytes.length;
  const pack = () => compress(bytes).then((packed) => packed.length);
  if (!path.endsWith(".js")) return pack();
  const known = sizes.get(path) ?? pack();
  sizes.set(path, known);
  return known;
}

/** Answers with a snapshot, or with what it would hold. */
export async function answerSnapshot(
  projectId: string,
  asked: z.infer<typeof snapshotAddress>,
  signal?: AbortSignal,
): Promise<Response> {
  const taken = takenBy(asked);
  const { json, about } = await snapshotFor(projectId, taken, asked.travel, signal);
  const name = nameOf(JSON.parse(json) as Snapshot);
  if (asked.form === "about") {
    const file = await aloneFile(json, asked.theme);
    const files = folderFiles(json, { name, theme: asked.theme, filters: {} });
    const folder = await Promise.all(
      [...files].map(async ([path, bytes]) => ({
        path,
        bytes: bytes.length,
        packed: await packedSize(path, bytes),
      })),
    );
    const { tables, inputs } = (JSON.parse(json) as Snapshot).project;
    const bytes = { json: Buffer.byteLength(json), html: Buffer.byteLength(file) };
    return Response.json({
      about: { ...about, bytes, folder, name, file: snapshotFile(name), project: { tables, inputs } },
    });
  }
  if (asked.form === "html")
    return new Response(await aloneFile(json, asked.theme), {
      headers: {
        "content-type": "text/html; charset=utf-8",
        "cache-control": "no-store",
        // Opened from here it would run under this server's name: it is only ever saved.
        ...attachment(`${name}.html`),
      },
    });
  if (asked.form === "folder") {
    const archive = await folderArchive(folderFiles(json, { name, theme: asked.theme, filters: {} }));
    return new Response(new Uint8Array(archive), {
      headers: {
        "content-type": "application/zip",
        "cache-control": "no-store",
        ...attachment(`${name}.zip`),
      },
    });
  }
  return new Response(json, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "cache-control": "no-store",
      ...(asked.download ? attachment(snapshotFile(name)) : {}),
    },
  });
}
