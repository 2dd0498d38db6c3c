"use client";
import { useEffect } from "react";
import { watchForEastAsian } from "@/present/east-asian";

/** Loads the fonts of East Asian scripts once a page shows some of them. */
export function EastAsianFonts() {
  useEffect(watchForEastAsian, []);
  return null;
}
