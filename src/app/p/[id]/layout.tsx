import { type ReactNode, Suspense } from "react";
import { readProject, type SavedProject } from "@/server/store/projects";
import { ProjectFrame } from "@/ui/shared/project-frame";

/** The project as it is saved; null where it cannot be had: the page asks once more, and says why. */
function savedProject(id: string): SavedProject | null {
  try {
    return readProject(id);
  } catch {
    return null;
  }
}

/**
 * The frame shows the screen of the step that the address names; the pages below it only make their addresses
 * known. The page arrives with its project.
 */
export default async function ProjectLayout({
  params,
}: {
  children: ReactNode;
  params: Promise<{ id: string }>;
}) {
  const { id } = await params;
  return (
    <Suspense
      fallback={<main className="grid h-full place-items-center p-6 text-muted">Opening the project …</main>}
    >
      <ProjectFrame id={id} arrived={savedProject(id)} />
    </Suspense>
  );
}
