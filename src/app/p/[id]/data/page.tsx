import { DataScreen } from "@/ui/data/data-screen";

export default function Page() {
  return <DataScreen />;
}
