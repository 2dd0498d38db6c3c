import { isKind } from "../kinds";
import { projectSchema } from "../project/schema";

/** The schema of a document, checked against what there is: a visual's kind is one of the kinds. */
export const documentSchema = projectSchema.superRefine((project, context) => {
  for (const [i, visual] of project.visuals.entries())
    if (!isKind(visual.kind))
      context.addIssue({
        code: "custom",
        path: ["visuals", i, "kind"],
        message: `There is no kind of visual called “${visual.kind}”. It may come from a newer version.`,
      });
});
