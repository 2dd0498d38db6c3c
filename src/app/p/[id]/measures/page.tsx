import { MeasuresScreen } from "@/ui/measures/measures-screen";

export default function Page() {
  return <MeasuresScreen />;
}
