"use client";
import { usePathname, useSearchParams } from "next/navigation";

/** The item that the address names (`?visual=…`), or the first one; and a way to choose another. */
export function useSelected<T extends { id: string }>(name: string, items: T[]): [T | null, (id: string | null) => void] {
  const params = useSearchParams();
  const path = usePathname();
  const wanted = params.get(name);
  const found = items.find((i) => i.id === wanted) ?? items[0] ?? null;
  // The page is the same whatever is chosen, so only the address changes and the server is not asked.
  const choose = (id: string | null) => window.history.replaceState(null, "", id ? `${path}?${new URLSearchParams({ [name]: id })}` : path);
  return [found, choose];
}
