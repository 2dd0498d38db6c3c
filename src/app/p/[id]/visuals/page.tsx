import { VisualsScreen } from "@/ui/bench/visuals-screen";

export default function Page() {
  return <VisualsScreen />;
}
