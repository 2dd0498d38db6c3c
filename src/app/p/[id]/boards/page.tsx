import { BoardsScreen } from "@/ui/boards/boards-screen";

export default function Page() {
  return <BoardsScreen />;
}
