"use client";
import { useMemo } from "react";
import type { Design } from "@/core/view/picture";
import { useProject } from "./project-context";

/** The palettes, finishes and pictures of the project; the same object until one of them changes. */
export function useDesign(): Design {
  const palettes = useProject((s) => s.document.palettes);
  const finishes = useProject((s) => s.document.finishes);
  const pictures = useProject((s) => s.document.pictures);
  return useMemo(() => ({ palettes, finishes, pictures }), [palettes, finishes, pictures]);
}
