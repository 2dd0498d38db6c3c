"use client";
import { useProjectStore } from "../shared/project-context";

/** Takes a file from its address once all is saved: it is made from what is saved. */
export function useTaking(): (address: string) => Promise<void> {
  const store = useProjectStore();
  return async (address) => {
    await store.getState().flush();
    const link = document.createElement("a");
    link.href = address;
    link.download = "";
    link.click();
  };
}
