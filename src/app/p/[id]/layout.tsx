import { type ReactNode, Suspense } from "react";
import { ProjectFrame } from "@/ui/shared/project-frame";

/** The frame shows the screen of the step that the address names; the pages below it only make their addresses known. */
export default async function ProjectLayout({ params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Suspense>
      <ProjectFrame id={id} />
    </Suspense>
  );
}
