import type { Project } from "@/core/project/schema";

/** The document with numbers and months as a language writes them; empty: as they are. */
export function inLocale(project: Project, locale: string): Project {
  if (locale === "") return project;
  const inIt = <T extends { format: { locale: string } }>(one: T): T => ({
    ...one,
    format: { ...one.format, locale },
  });
  return {
    ...project,
    conventions: { ...project.conventions, locale },
    measures: project.measures.map(inIt),
    inputs: project.inputs.map(inIt),
  };
}
