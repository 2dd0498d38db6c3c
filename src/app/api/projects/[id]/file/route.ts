import { Readable } from "node:stream";
import { attachment } from "@/server/http/download";
import { handle } from "@/server/http/handle";
import { writeProjectFile } from "@/server/import/project-file";
import { readProject } from "@/server/store/projects";
import { holdRows } from "@/server/store/sound-rows";

export const GET = handle<{ id: string }>((_request, { id }) => {
  const { document } = readProject(id);
  // Before anything is sent, so that what is damaged is told and not written into a file.
  for (const table of document.tables) holdRows(table);
  const body = Readable.toWeb(Readable.from(writeProjectFile(document))) as ReadableStream;
  return new Response(body, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      ...attachment(`${document.name}.cavlo.json`),
    },
  });
});
