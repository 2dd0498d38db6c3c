"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import { useProject } from "./project-context";
import { STEPS } from "./steps";

/** Names the window after the step and the project, or after the board that is presented. */
export function PageTitle() {
  const name = useProject((s) => s.document.name);
  const boards = useProject((s) => s.document.boards);
  const params = useSearchParams();
  const path = usePathname().split("/")[3];
  const step = path === "contact-sheet" ? "Contact sheet" : STEPS.find((s) => s.path === path)?.label;
  const board = boards.find((b) => b.id === params.get("board")) ?? boards[0];
  const shown = params.get("present") === "1" && board ? board.name : step;
  useEffect(() => {
    document.title = [shown, name, "Cavlo"].filter(Boolean).join(" – ");
    return () => {
      document.title = "Cavlo";
    };
  }, [shown, name]);
  return null;
}
