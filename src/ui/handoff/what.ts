"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useState } from "react";
import type { Board, Visual } from "@/core/project/schema";
import { useProject } from "../shared/project-context";
import { nameInAddress } from "../shared/step-link";

/** What is taken out: a board, or some visuals. */
export type What = { board: Board; visuals: [] } | { board: null; visuals: Visual[] };

/** As what it is taken out. */
export const FORMS = ["picture", "element", "file", "code", "numbers", "project"] as const;
export type Form = (typeof FORMS)[number];

/** What of a project is taken out and as what, as the address says it: that where somebody came from. */
export function useWhat(): {
  what: What;
  form: Form;
  choose: (what: { board: string } | { visuals: string[] }) => void;
  as: (form: Form) => void;
} {
  const { visuals, boards } = useProject((s) => s.document);
  const address = useSearchParams();
  const path = usePathname();
  // What is chosen stands at once; the address follows, and has its say again whenever it changes.
  const [chosenNow, setChosenNow] = useState<{ from: string; params: Record<string, string> } | null>(null);
  const params =
    chosenNow && chosenNow.from === address.toString() ? new URLSearchParams(chosenNow.params) : address;
  const board = boards.find((b) => b.id === params.get("board"));
  const ids = [params.get("visual"), ...(params.get("with")?.split(",") ?? [])];
  const named = visuals.filter((v) => ids.includes(v.id));
  const chosen: Visual[] = named.length > 0 ? named : visuals.slice(0, 1);
  const what: What =
    board && named.length === 0
      ? { board, visuals: [] }
      : chosen.length === 0 && boards.length > 0
        ? { board: boards[0], visuals: [] }
        : { board: null, visuals: chosen };
  const asked = params.get("as");
  const fits = FORMS.find((f) => f === asked && fitsWhat(f, what));
  const form = fits ?? (fitsWhat("picture", what) ? "picture" : "element");
  const inAddress = (of: { board: string } | { visuals: string[] }, as: Form) => {
    const place: Record<string, string> =
      "board" in of
        ? { board: of.board }
        : {
            visual: of.visuals[0] ?? "",
            ...(of.visuals.length > 1 ? { with: of.visuals.slice(1).join(",") } : {}),
          };
    setChosenNow({ from: address.toString(), params: { ...place, as } });
    nameInAddress(path, { ...place, as });
  };
  const now = what.board ? { board: what.board.id } : { visuals: what.visuals.map((v) => v.id) };
  return {
    what,
    form,
    choose: (of) => inAddress(of, form),
    as: (next) => inAddress(now, next),
  };
}

/** Whether a form is one that something is taken out as: pictures, code and numbers are of one visual. */
export const fitsWhat = (form: Form, what: What): boolean =>
  form === "project" ||
  ((form === "element" || form === "file") && (what.board !== null || what.visuals.length > 0)) ||
  what.visuals.length === 1;
