import { readdirSync, readFileSync } from "node:fs";
import { Validator } from "@seriousme/openapi-schema-validator";
import { Ajv2020 } from "ajv/dist/2020";
import { describe, expect, it } from "vitest";
import { migrateDocument } from "@/core/project/migrations";
import { emptyProject, projectSchema } from "@/core/project/schema";
import { CALLS } from "./calls";
import { openApiDocument, projectJsonSchema } from "./openapi";

const folder = new URL("../../app/api/", import.meta.url);

/** The methods of every route of the interface, as "GET /api/projects/{id}". */
const routes = readdirSync(folder, { recursive: true, encoding: "utf8" })
  .filter((file) => file.endsWith("route.ts"))
  .flatMap((file) => {
    const text = readFileSync(new URL(file, folder), "utf8");
    const path = `/api/${file
      .replace(/\/route\.ts$/, "")
      .replaceAll("[", "{")
      .replaceAll("]", "}")}`;
    const methods = [...text.matchAll(/^export (?:const|function|async function) (GET|POST|PUT|DELETE)\b/gm)];
    return methods.map(([, method]) => `${method} ${path}`);
  });

describe("the document of the interface", () => {
  it("has every route with its methods, and nothing else", () => {
    expect(routes.length).toBeGreaterThan(25);
    expect(CALLS.map(({ method, path }) => `${method} ${path}`).toSorted()).toEqual(routes.toSorted());
  });

  it("is an OpenAPI document, and one that is broken is found to be none", async () => {
    const valid = await new Validator().validate(openApiDocument());
    expect(valid.errors).toBeUndefined();
    expect(valid.valid).toBe(true);
    const broken = { ...openApiDocument(), paths: { "no slash": { get: { responses: 7 } } } };
    expect((await new Validator().validate(broken)).valid).toBe(false);
  });

  it("says what addresses and bodies are checked for", () => {
    const { paths } = openApiDocument() as { paths: Record<string, Record<string, never>> };
    const rows = paths["/api/projects/{id}/tables/{name}/rows"].get as { parameters: object[] };
    expect(rows.parameters).toContainEqual({
      name: "limit",
      in: "query",
      required: false,
      schema: { type: "integer", minimum: 1, maximum: 500, default: 100 },
    });
    expect(rows.parameters).toContainEqual({
      name: "id",
      in: "path",
      required: true,
      schema: { type: "string" },
    });
    const taken = paths["/api/projects/{id}/tables"].post as {
      parameters: { name: string; required: boolean }[];
    };
    expect(taken.parameters.find((p) => p.name === "name")?.required).toBe(true);
    expect(JSON.stringify(paths["/api/projects/{id}/results"].post)).toContain('"queries"');
  });
});

describe("the JSON Schema of a project", () => {
  const validate = new Ajv2020({ strict: false }).compile(projectJsonSchema());
  const stored = (version: number) => {
    const file = new URL(`../../core/project/stored/version-${version}.json`, import.meta.url);
    const migrated = migrateDocument(JSON.parse(readFileSync(file, "utf8")));
    if ("problem" in migrated) throw new Error(migrated.problem);
    return projectSchema.parse(migrated.document);
  };

  it("takes what the application writes", () => {
    for (const document of [emptyProject("P"), stored(1), stored(4)]) {
      validate(JSON.parse(JSON.stringify(document)));
      expect(validate.errors).toBeNull();
    }
  });

  it("refuses what the application would", () => {
    const document = JSON.parse(JSON.stringify(stored(4)));
    for (const broken of [
      { ...document, version: 4 },
      { ...document, boards: [{ ...document.boards[0], width: 1000 }] },
      { ...document, measures: [{ ...document.measures[0], betterWhen: "sometimes" }] },
      { ...document, name: 7 },
      { ...document, visuals: [{ ...document.visuals[0], filters: [{ column: 7 }] }] },
    ]) {
      expect(projectSchema.safeParse(broken).success).toBe(false);
      expect(validate(broken)).toBe(false);
    }
  });
});
