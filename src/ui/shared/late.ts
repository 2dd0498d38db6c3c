"use client";
import { useEffect, useState } from "react";

/** True once something has been so for some milliseconds: what tells of waiting need not flash up before. */
export function useLate(waiting: boolean, after: number): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    setLate(false);
    if (!waiting) return;
    const timer = setTimeout(() => setLate(true), after);
    return () => clearTimeout(timer);
  }, [waiting, after]);
  return late;
}
