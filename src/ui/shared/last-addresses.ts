"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useState } from "react";

/** What of an address asks for something new, and is not gone back to. */
const ONCE = ["make", "draw"];

type Addresses = Readonly<Record<string, string>>;
const keyOf = (project: string) => `cavlo last addresses ${project}`;

/** The addresses that this window had last, by step; none where the browser keeps nothing. */
function kept(project: string): Addresses {
  try {
    const value: unknown = JSON.parse(sessionStorage.getItem(keyOf(project)) ?? "{}");
    return typeof value === "object" && value !== null ? (value as Addresses) : {};
  } catch {
    return {};
  }
}

/**
 * What was last chosen on each step of a project in this window, as the query of its address: a step that is
 * gone back to opens that. It outlives a reload.
 */
export function useLastAddresses(project: string): Addresses {
  const step = usePathname().split("/")[3] ?? "";
  const query = useSearchParams().toString();
  const [last, setLast] = useState<Addresses>({});
  useEffect(() => {
    const params = new URLSearchParams(query);
    for (const name of ONCE) params.delete(name);
    const next = { ...kept(project), ...(params.size > 0 ? { [step]: params.toString() } : {}) };
    setLast(next);
    try {
      sessionStorage.setItem(keyOf(project), JSON.stringify(next));
    } catch {
      // Without room, a step opens with its first item, as in a new window.
    }
  }, [project, step, query]);
  return last;
}
