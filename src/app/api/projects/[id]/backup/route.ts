import { Readable } from "node:stream";
import { attachment } from "@/server/http/download";
import { handle } from "@/server/http/handle";
import { backupStream } from "@/server/keep/backup";

export const GET = handle<{ id: string }>(async (_request, { id }) => {
  const body = Readable.toWeb(await backupStream(id)) as ReadableStream;
  return new Response(body, {
    headers: {
      "content-type": "application/zip",
      "cache-control": "no-store",
      ...attachment(`cavlo-${id}.backup.zip`),
    },
  });
});
