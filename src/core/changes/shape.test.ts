import { describe, expect, it } from "vitest";
import type { z } from "zod";
import { projectSchema } from "../project/schema";
import { fieldsOf, PROJECT_SHAPE, type Shape } from "./shape";

interface Definition {
  type: string;
  innerType?: z.ZodType;
  element?: z.ZodType;
  shape?: Record<string, z.ZodType>;
  options?: z.ZodType[];
}
const definitionOf = (schema: z.ZodType) => schema.def as unknown as Definition;

/** The fields that things have in any of their forms. */
function fieldsIn(schema: z.ZodType | undefined): Record<string, z.ZodType> {
  if (!schema) return {};
  const { type, shape, options } = definitionOf(schema);
  if (type === "object") return shape ?? {};
  if (type !== "union") return {};
  return Object.assign({}, ...(options ?? []).map(fieldsIn)) as Record<string, z.ZodType>;
}

/** What a shape leaves out of the schema, or has beyond it, by its place. */
function misfits(schema: z.ZodType, shape: Shape, place: string): string[] {
  const { type, innerType, element } = definitionOf(schema);
  if ((type === "default" || type === "prefault") && innerType) return misfits(innerType, shape, place);
  // Records by names of somebody's making are read by a transformation.
  const isRecord = type === "record" || type === "pipe";
  if (isRecord !== (shape.type === "record")) return [`${place} is ${isRecord ? "a" : "no"} record`];
  if (shape.type === "fields") return fieldMisfits(fieldsIn(schema), shape, place);
  const members = type === "array" ? fieldsIn(element) : {};
  const key = (["id", "name"] as const).find((name) => Object.hasOwn(members, name));
  if (shape.type === "items")
    return key === shape.key ? fieldMisfits(members, shape, place) : [`${place} is no list by ${shape.key}`];
  return key ? [`${place} is a list by ${key}`] : [];
}

function fieldMisfits(of: Record<string, z.ZodType>, { fields }: Shape & { fields: object }, place: string) {
  const known = new Map<string, Shape>(Object.entries(fields));
  const said = [...known.keys()].flatMap(fieldsOf);
  return [
    ...Object.keys(of).filter((name) => !said.includes(name)),
    ...said.filter((name) => !Object.hasOwn(of, name)),
  ]
    .map((name) => `${place} ${name}`)
    .concat(
      Object.entries(of).flatMap(([name, schema]) => {
        const shape = known.get(name);
        return shape ? misfits(schema, shape, `${place} ${name}`) : [];
      }),
    );
}

describe("how a project is taken apart", () => {
  it("has every field of the schema, every record by its names, every list of things by their key, and no more", () => {
    expect(misfits(projectSchema, PROJECT_SHAPE, "project")).toEqual([]);
  });

  it("would be found wanting", () => {
    if (PROJECT_SHAPE.type !== "fields") throw new Error("a project has fields");
    const { visuals, boards, ...rest } = PROJECT_SHAPE.fields;
    const fields = { ...rest, visuals: { type: "unit" }, more: { type: "unit" } } as const;
    expect(misfits(projectSchema, { type: "fields", fields }, "project")).toEqual([
      "project boards",
      "project more",
      "project visuals is a list by id",
    ]);
    expect([visuals.type, boards.type]).toEqual(["items", "items"]);
  });
});
