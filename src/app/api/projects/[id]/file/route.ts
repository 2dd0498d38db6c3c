import { Readable } from "node:stream";
import { attachment } from "@/server/http/download";
import { handle } from "@/server/http/handle";
import { writeProjectFile } from "@/server/import/project-file";
import { readProject } from "@/server/store/projects";

export const GET = handle<{ id: string }>((_request, { id }) => {
  const { document } = readProject(id);
  const body = Readable.toWeb(Readable.from(writeProjectFile(document))) as ReadableStream;
  return new Response(body, { headers: { "content-type": "application/json; charset=utf-8", ...attachment(`${document.name}.cavlo.json`) } });
});
