"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { nameInAddress } from "./step-link";

/** The item that the address names (`?visual=…`), or the first one; and a way to choose another. */
export function useSelected<T extends { id: string }>(
  name: string,
  items: T[],
): [T | null, (id: string | null) => void] {
  const params = useSearchParams();
  const path = usePathname();
  const wanted = params.get(name);
  const found = items.find((i) => i.id === wanted) ?? items[0] ?? null;
  const choose = (id: string | null) => nameInAddress(path, id ? { [name]: id } : {});
  return [found, choose];
}
