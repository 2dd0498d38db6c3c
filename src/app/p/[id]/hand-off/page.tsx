import { HandOffScreen } from "@/ui/handoff/hand-off-screen";

export default function Page() {
  return <HandOffScreen />;
}
