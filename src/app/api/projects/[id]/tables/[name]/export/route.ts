import { z } from "zod";
import { TABLE_FORMATS, type TableFormat } from "@/render/table/table-file";
import { attachment } from "@/server/http/download";
import { filtersInAddress, visibleInAddress } from "@/server/http/filters-in-address";
import { handle, readQuery } from "@/server/http/handle";
import { readProject } from "@/server/store/projects";
import { writeTable } from "@/server/table-export";
import { findTable } from "@/server/tables";

const querySchema = z.object({
  format: z.enum(Object.keys(TABLE_FORMATS) as [TableFormat, ...TableFormat[]]),
  filters: filtersInAddress,
  visible: visibleInAddress,
});

export const GET = handle<{ id: string; name: string }>((request, { id, name }) => {
  const { format, filters, visible } = readQuery(request, querySchema);
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
