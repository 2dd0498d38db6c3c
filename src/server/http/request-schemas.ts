import { z } from "zod";
import { readingSchema } from "@/core/data/reading-schema";
import { querySchema } from "@/core/plan/query";
import { LONGEST } from "@/core/project/most";
import { linkSchema } from "@/core/project/schema";
import { TABLE_FORMATS, type TableFormat } from "@/render/table/table-file";
import { importOptionsSchema } from "../import/reader";
import { draftSchema } from "../results";
import { filtersInAddress, visibleInAddress } from "./filters-in-address";

// What calls of the HTTP interface are sent, where that is told nowhere else: routes check it, and the
// document of the interface is made of it.

/** The name of a file that is sent as the body. */
const fileName = z.string().min(1, "Say the file's name: ?name=….").max(300);

/** A change of a project: the revision that it grew from, and the whole document. */
export const saveBody = z.object({ revision: z.int().min(1), document: z.unknown() });

/** A document of which a new project is made. */
export const copyBody = z.object({ document: z.unknown() });

/** An earlier revision that becomes the newest. */
export const restoreBody = z.object({ revision: z.int().min(1) });

/** Links whose hold over the rows is asked. */
export const linksBody = z.object({ links: z.array(linkSchema.omit({ id: true })).max(200) });

/** A query whose rows are asked, with what of the document is not saved yet. */
export const behindBody = z.object({ query: querySchema, draft: draftSchema.optional() });

/** A table that is brought in: its file is the body. With `add=1` it stands in the document at once. */
export const importAddress = importOptionsSchema.extend({
  name: fileName,
  add: z.literal("1").optional(),
});

/** Rows that are added to a table: their file is the body. */
export const appendAddress = z.object({ name: fileName });

/** The name of a column that is made. */
const columnName = z.string().trim().min(1, "A column needs a name.").max(LONGEST.column);

/** Columns that are turned into rows, and the columns of their names and of their cells. */
export const turnBody = z.object({
  columns: z.array(z.string().max(200)).min(1, "Say at least one column.").max(2000),
  names: columnName,
  values: columnName,
});

/** Another reading of a column. */
export const unreadBody = z.object({ column: z.string().max(200), reading: readingSchema });

/** A page of the rows of a table. */
export const rowsAddress = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  sort: z.string().max(200).optional(),
  order: z.enum(["asc", "desc"]).default("asc"),
  find: z.string().max(200).default(""),
  filters: filtersInAddress,
  visible: visibleInAddress,
});

/** A whole table as a file. */
export const exportAddress = z.object({
  format: z.enum(Object.keys(TABLE_FORMATS) as [TableFormat, ...TableFormat[]]),
  filters: filtersInAddress,
  visible: visibleInAddress,
});

/** What is done with tables that no project names. */
export const unclaimedBody = z.object({
  project: z.string().max(40),
  action: z.enum(["bring back", "remove"]),
});
