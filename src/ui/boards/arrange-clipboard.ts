import { create } from "zustand";
import type { Tile } from "@/core/project/schema";

/** The tiles that were copied, with the project that they are of. */
interface Copied {
  project: string;
  tiles: Tile[];
}

/** Tiles that were copied on one board, to be put on it again or on another of the project. */
export const useCopied = create<{ copied: Copied | null; copy: (copied: Copied) => void }>((set) => ({
  copied: null,
  copy: (copied) => set({ copied }),
}));
