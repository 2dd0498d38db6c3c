import { Readable } from "node:stream";
import { attachment } from "@/server/http/download";
import { handle } from "@/server/http/handle";
import { backupStream } from "@/server/keep/backup";

export const dynamic = "force-dynamic";

export const GET = handle(async () => {
  const body = Readable.toWeb(await backupStream()) as ReadableStream;
  const day = new Date().toISOString().slice(0, 10);
  return new Response(body, {
    headers: {
      "content-type": "application/zip",
      "cache-control": "no-store",
      ...attachment(`cavlo-${day}.backup.zip`),
    },
  });
});
