import type { z } from "zod";
import { pictureQuerySchema } from "../board-picture";
import { newProjectBody } from "../create-project";
import { importOptionsSchema } from "../import/reader";
import { cellsRequestSchema, resultsRequestSchema } from "../results";
import { snapshotAddress } from "../snapshots/answer-snapshot";
import { visualAddress } from "../visual-file";
import {
  appendAddress,
  behindBody,
  copyBody,
  exportAddress,
  importAddress,
  linksBody,
  restoreBody,
  rowsAddress,
  saveBody,
  turnBody,
  unclaimedBody,
  unreadBody,
} from "./request-schemas";

/** A call of the HTTP interface: what it does, what it is sent, and what it answers where all is well. */
export interface Call {
  method: "GET" | "POST" | "PUT" | "DELETE";
  /** As in an address, with {names} in the place of what differs. */
  path: string;
  does: string;
  /** What its address can say after the question mark. */
  address?: z.ZodType;
  /** What is sent: JSON of a schema, or a file as it is. */
  body?: z.ZodType | "file";
  /** The types that it answers with; none where it answers with nothing. */
  answers: { status: 200 | 201 | 202 | 204; types: string[] };
}

const JSON_TYPE = "application/json";
const LINES = "application/x-ndjson";
const ok = (...types: string[]): Call["answers"] => ({ status: 200, types });
const made: Call["answers"] = { status: 201, types: [JSON_TYPE] };
const done: Call["answers"] = { status: 204, types: [] };

const TABLE_TYPES = [
  "text/csv",
  JSON_TYPE,
  LINES,
  "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
];

const project = "/api/projects/{id}";
const table = `${project}/tables/{name}`;

/** Every call of the interface, in the order in which they are told. */
export const CALLS: readonly Call[] = [
  { method: "GET", path: "/api/health", does: "How the server is doing.", answers: ok(JSON_TYPE) },
  {
    method: "GET",
    path: "/api/openapi.json",
    does: "This interface, as an OpenAPI document.",
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: "/api/project.schema.json",
    does: "What the document of a project is, as a JSON Schema.",
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: "/api/events",
    does: "What happens to projects, as it happens: server-sent events, one stream a window.",
    answers: ok("text/event-stream"),
  },
  {
    method: "GET",
    path: "/api/projects",
    does: "All projects, those that were deleted, and tables that no project names.",
    answers: ok(JSON_TYPE),
  },
  {
    method: "POST",
    path: "/api/projects",
    does: "Makes a project: an empty one, the demo, or one out of a project file.",
    body: newProjectBody,
    answers: made,
  },
  { method: "GET", path: project, does: "A project with its document and revision.", answers: ok(JSON_TYPE) },
  {
    method: "PUT",
    path: project,
    does: "Saves a document over the revision that it grew from; 409 with the newer one where that is older.",
    body: saveBody,
    answers: ok(JSON_TYPE),
  },
  { method: "DELETE", path: project, does: "Deletes a project, which is kept for a while.", answers: done },
  {
    method: "POST",
    path: `${project}/copy`,
    does: "A new project out of a document, with copies of the tables.",
    body: copyBody,
    answers: made,
  },
  {
    method: "POST",
    path: `${project}/undelete`,
    does: "Brings a deleted project back.",
    answers: ok(JSON_TYPE),
  },
  { method: "POST", path: `${project}/purge`, does: "Removes a deleted project for good.", answers: done },
  {
    method: "POST",
    path: `${project}/restore`,
    does: "Makes an earlier revision the newest.",
    body: restoreBody,
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: `${project}/file`,
    does: "The project file: its document, and the rows of its tables.",
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: `${project}/backup`,
    does: "A backup of a project.",
    answers: ok("application/zip"),
  },
  { method: "GET", path: "/api/backup", does: "A backup of everything.", answers: ok("application/zip") },
  {
    method: "GET",
    path: `${project}/picture`,
    does: "Its first board as a small picture; 204 where it has none.",
    address: pictureQuerySchema,
    answers: ok("image/svg+xml"),
  },
  {
    method: "POST",
    path: `${project}/tables`,
    does: "Brings a table in: the body is the file as it is. Answers lines: how far it is, last the table; with add=1 it stands in the document then.",
    address: importAddress,
    body: "file",
    answers: ok(LINES),
  },
  {
    method: "GET",
    path: table,
    does: "A table with the profile of its columns.",
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: `${table}/rows`,
    does: "A page of its rows.",
    address: rowsAddress,
    answers: ok(JSON_TYPE),
  },
  {
    method: "GET",
    path: `${table}/export`,
    does: "The whole table as a file, or the rows that filters keep.",
    address: exportAddress,
    answers: ok(...TABLE_TYPES),
  },
  {
    method: "POST",
    path: `${table}/append`,
    does: "Adds the rows of a file with the same columns: answers like an import, with a table of both.",
    address: appendAddress,
    body: "file",
    answers: ok(LINES),
  },
  {
    method: "POST",
    path: `${table}/reread`,
    does: "Reads the table's own file again in another way: answers like an import.",
    body: importOptionsSchema,
    answers: ok(LINES),
  },
  {
    method: "POST",
    path: `${table}/turn`,
    does: "Makes another table in which some columns are turned into rows: answers like an import.",
    body: turnBody,
    answers: ok(LINES),
  },
  {
    method: "POST",
    path: `${table}/unread`,
    does: "How many filled cells of a column another reading could not read.",
    body: unreadBody,
    answers: ok(JSON_TYPE),
  },
  {
    method: "POST",
    path: `${project}/links`,
    does: "How links hold over the rows, and which more names and values speak for.",
    body: linksBody,
    answers: ok(JSON_TYPE),
  },
  {
    method: "POST",
    path: `${project}/results`,
    does: "Answers queries in order; one that cannot be answered does not spoil the others.",
    body: resultsRequestSchema,
    answers: ok(JSON_TYPE),
  },
  {
    method: "POST",
    path: `${project}/behind`,
    does: "The rows that a query is computed from: their filters, counts and sums, table by table.",
    body: behindBody,
    answers: ok(JSON_TYPE),
  },
  {
    method: "POST",
    path: `${project}/cells`,
    does: "Says that a board is looked at, so that what is filtered there is answered without a scan.",
    body: cellsRequestSchema,
    answers: { status: 202, types: [JSON_TYPE] },
  },
  {
    method: "POST",
    path: `${project}/cells/bytes`,
    does: "The sums of a board that is looked at, for its page to answer from; 204 where they are too many.",
    body: cellsRequestSchema,
    answers: ok("application/octet-stream"),
  },
  {
    method: "GET",
    path: `${project}/visuals/{file}`,
    does: "A visual by its id and what it is wanted as: ID.svg, ID.png, ID.json, ID.csv, ID.ndjson, ID.xlsx, or ID.tsx (a component of React). Also input.NAME and filter.COLUMN in the address.",
    address: visualAddress,
    answers: ok("image/svg+xml", "image/png", "text/plain", ...TABLE_TYPES),
  },
  {
    method: "GET",
    path: `${project}/snapshot`,
    does: "A board or visuals with what answers them, for pages without a server: by answers only, or with the rows that they need. form=about says what would travel.",
    address: snapshotAddress,
    answers: ok(JSON_TYPE, "text/html", "application/zip"),
  },
  {
    method: "POST",
    path: "/api/unclaimed",
    does: "Brings tables that no project names back as a project (201), or removes them (204).",
    body: unclaimedBody,
    answers: made,
  },
  {
    method: "POST",
    path: "/api/verify",
    does: "Holds everything in the data folder to its checksums: answers lines, a step each.",
    answers: ok(LINES),
  },
];
