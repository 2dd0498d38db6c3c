import { type ReactNode, Suspense } from "react";
import { ProjectFrame } from "@/ui/shared/project-frame";

/**
 * The frame shows the screen of the step that the address names; the pages below it only make their addresses
 * known.
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
      <ProjectFrame id={id} />
    </Suspense>
  );
}
