import { type ReactNode, Suspense } from "react";
import { ProjectFrame } from "@/ui/shared/project-frame";

export default async function ProjectLayout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Suspense>
      <ProjectFrame id={id}>{children}</ProjectFrame>
    </Suspense>
  );
}
