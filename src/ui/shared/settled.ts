"use client";
import { useEffect, useState } from "react";

const STILL = 140;

/** A value once it has been still for a moment: what need not follow a drag step by step takes this. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    if (value === settled) return;
    const timer = setTimeout(() => setSettled(value), STILL);
    return () => clearTimeout(timer);
  }, [value, settled]);
  return settled;
}
