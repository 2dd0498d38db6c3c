import type { z } from "zod";

type Issue = z.core.$ZodIssue;
/** What is wrong, and where. */
interface Said {
  path: PropertyKey[];
  message: string;
}

/**
 * The first thing that is wrong in what was checked. Where something can take several forms, that to which it
 * comes nearest tells, or else what could stand there.
 */
export const firstIssue = (error: z.ZodError): Said => saidOf(error.issues[0] as Issue);

/** What an issue says. */
export function saidOf(issue: Issue): Said {
  const { path, message } = issue;
  if (issue.code !== "invalid_union" || issue.errors.length === 0) return { path, message };
  const nearest = nearestOf(issue.errors);
  if (!nearest) return { path, message: couldStand(issue.errors) ?? message };
  const inner = saidOf(nearest[0]);
  return { path: [...path, ...inner.path], message: inner.message };
}

const isUnknownField = (issue: Issue) => issue.code === "unrecognized_keys" && issue.path.length === 0;

/** The one of several forms that has all the fields that were given, or else the least that is wrong. */
function nearestOf(forms: Issue[][]): Issue[] | null {
  const fields = forms.filter((issues) => issues[0].path.length > 0 || issues.every(isUnknownField));
  const fitting = fields.filter((issues) => !issues.some(isUnknownField));
  const rest = fitting.length > 0 ? fitting : fields;
  const least = Math.min(...rest.map((issues) => issues.length));
  const nearest = rest.filter((issues) => issues.length === least);
  return nearest.length === 1 ? nearest[0] : null;
}

/** What could stand in the place of something that is of no form, in words; null where that is not known. */
function couldStand(forms: Issue[][]): string | null {
  const fields = forms.flatMap(([{ path }]) => (path.length > 0 ? [String(path[0])] : []));
  if (fields.length > 0) return `Invalid input: expected one of the fields ${listed(fields)}`;
  const known = forms.flatMap(([issue]) => {
    if (issue.code === "invalid_type") return [issue.expected];
    return issue.code === "invalid_value" ? issue.values.map((value) => JSON.stringify(value)) : [];
  });
  return known.length > 0 ? `Invalid input: expected ${listed(known)}` : null;
}

function listed(all: string[]): string {
  const [last, ...others] = [...new Set(all)].reverse();
  return others.length > 0 ? `${others.reverse().join(", ")} or ${last}` : last;
}
