"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useState } from "react";
import { nameInAddress } from "./step-link";

/**
 * The item that the address names (`?visual=…`), or the first one; and a way to choose another. What was chosen
 * is shown at once, before the address names it: what is typed then is meant for it.
 */
export function useSelected<T extends { id: string }>(
  name: string,
  items: T[],
): [T | null, (id: string | null) => void] {
  const params = useSearchParams();
  const path = usePathname();
  const wanted = params.get(name);
  const named = items.find((i) => i.id === wanted) ?? items[0] ?? null;
  const [asked, setAsked] = useState<string | null>(null);
  const namedId = named?.id;
  useEffect(() => {
    if (namedId !== undefined) setAsked(null);
  }, [namedId]);
  const choose = (id: string | null) => {
    setAsked(id);
    nameInAddress(path, id ? { [name]: id } : {});
  };
  return [items.find((i) => i.id === asked) ?? named, choose];
}
