import { isWellFormedData } from "@/core/base/well-formed";
import { migrateDocument } from "@/core/project/migrations";
import { isCleanPicture } from "@/core/project/picture-file";
import { documentProblem, type Project } from "@/core/project/schema";
import { withToldTables } from "@/core/project/told-tables";
import { documentSchema } from "@/core/view/document";

/**
 * A document from outside, of this version or an earlier one, as the schema reads it and with nothing in its
 * pictures that runs or leads outside, and with the tables that the names of its measures tell; or what is
 * wrong with it, with its place.
 */
export function parseDocument(value: unknown): { document: Project } | { problem: string } {
  if (!isWellFormedData(value))
    return { problem: "A text in the document holds half of a character (a lone surrogate)." };
  const migrated = migrateDocument(value);
  if ("problem" in migrated) return migrated;
  const parsed = documentSchema.safeParse(migrated.document);
  if (!parsed.success) return { problem: documentProblem(parsed.error) };
  const bad = parsed.data.pictures.findIndex((p) => !isCleanPicture(p.href));
  if (bad >= 0)
    return {
      problem: `pictures ${bad + 1}: A picture is a PNG, or an SVG without scripts, style sheets and addresses that lead outside. Upload it again.`,
    };
  return { document: withToldTables(parsed.data) };
}
