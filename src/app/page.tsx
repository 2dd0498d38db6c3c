import { ProjectsScreen } from "@/ui/projects/projects-screen";

export default function Page() {
  return <ProjectsScreen />;
}
