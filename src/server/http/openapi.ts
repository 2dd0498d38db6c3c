import { z } from "zod";
import { projectSchema } from "@/core/project/schema";
import packageJson from "../../../package.json";
import { CALLS, type Call } from "./calls";

type Json = Record<string, unknown>;

/** What a schema lets in, as JSON Schema 2020-12; what it does with it after that is told nowhere. */
const inputOf = (schema: z.ZodType): Json => {
  const { $schema: _, ...made } = z.toJSONSchema(schema, { io: "input", unrepresentable: "any" }) as Json;
  return made;
};

/** A part of an address is text, which some schemas turn into numbers: then it is told as what it becomes. */
function addressPart(schema: z.ZodType): Json {
  const input = inputOf(schema);
  if ("type" in input || "enum" in input || "const" in input || "anyOf" in input) return input;
  const { $schema: _, ...made } = z.toJSONSchema(schema, { io: "output", unrepresentable: "any" }) as Json;
  return made;
}

/** What the address of a call can say: the names in its path, and what follows its question mark. */
function parameters({ path, address }: Call): Json[] {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
  if (!(address instanceof z.ZodObject)) return names;
  const asked = Object.entries(address.shape as Record<string, z.ZodType>).map(([name, part]) => ({
    name,
    in: "query",
    required: !part.safeParse(undefined).success,
    schema: addressPart(part),
  }));
  return [...names, ...asked];
}

const PROBLEM = {
  description: "It was not done; the message says why and what to do.",
  content: { "application/json": { schema: { $ref: "#/components/schemas/Problem" } } },
};

function operation(call: Call): Json {
  const { does, body, answers } = call;
  const asked = parameters(call);
  const content = Object.fromEntries(answers.types.map((type) => [type, { schema: {} }]));
  return {
    summary: does,
    ...(asked.length > 0 ? { parameters: asked } : {}),
    ...(body === "file"
      ? { requestBody: { required: true, content: { "application/octet-stream": {} } } }
      : body
        ? { requestBody: { required: true, content: { "application/json": { schema: inputOf(body) } } } }
        : {}),
    responses: {
      [answers.status]: { description: "Done.", ...(answers.types.length > 0 ? { content } : {}) },
      "4XX": PROBLEM,
      "5XX": PROBLEM,
    },
  };
}

/** The HTTP interface as an OpenAPI 3.1 document, made from the schemas that check what is sent. */
export function openApiDocument(): Json {
  const paths: Record<string, Json> = {};
  for (const call of CALLS) {
    const of = paths[call.path] ?? {};
    paths[call.path] = { ...of, [call.method.toLowerCase()]: operation(call) };
  }
  return {
    openapi: "3.1.0",
    info: {
      title: "Cavlo",
      version: packageJson.version,
      description: "Projects, tables, measures and visuals: what the application itself asks.",
    },
    paths,
    components: {
      schemas: {
        Problem: {
          type: "object",
          required: ["error"],
          properties: {
            error: {
              type: "object",
              required: ["code", "message"],
              properties: {
                code: { type: "string" },
                message: { type: "string" },
                field: { type: "string" },
                at: {
                  type: "object",
                  properties: { start: { type: "integer" }, end: { type: "integer" } },
                },
              },
            },
          },
        },
      },
    },
  };
}

/** The document of a project as a JSON Schema 2020-12, made from the schema that checks it. */
export const projectJsonSchema = (): Json => ({
  $schema: "https://json-schema.org/draft/2020-12/schema",
  title: "The document of a Cavlo project",
  ...inputOf(projectSchema),
});
