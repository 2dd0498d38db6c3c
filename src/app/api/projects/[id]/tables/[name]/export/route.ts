import { TABLE_FORMATS } from "@/render/table/table-file";
import { attachment } from "@/server/http/download";
import { handle, readQuery } from "@/server/http/handle";
import { exportAddress } from "@/server/http/request-schemas";
import { readProject } from "@/server/store/projects";
import { writeTable } from "@/server/table-export";
import { findTable } from "@/server/tables";

export const GET = handle<{ id: string; name: string }>((request, { id, name }) => {
  const { format, filters, visible } = readQuery(request, exportAddress);
  const table = findTable(id, name);
  const body = writeTable(id, readProject(id).document, table, { format, filters, visible }, request.signal);
  return new Response(body, {
    headers: {
      "content-type": TABLE_FORMATS[format],
      "cache-control": "no-store",
      ...attachment(`${table.name}.${format}`),
    },
  });
});
