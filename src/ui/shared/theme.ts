"use client";
import { useEffect } from "react";
import { create } from "zustand";

export type ThemeName = "light" | "night";

interface ThemeState {
  theme: ThemeName;
  setTheme: (theme: ThemeName) => void;
}

const KEY = "cavlo.theme";

/** The theme of the interface, kept in this browser. */
export const useTheme = create<ThemeState>((set) => ({
  theme: "light",
  setTheme: (theme) => {
    localStorage.setItem(KEY, theme);
    document.documentElement.dataset.theme = theme;
    set({ theme });
  },
}));

/** Takes up the theme chosen before. */
export function useStoredTheme(): void {
  const setTheme = useTheme((s) => s.setTheme);
  useEffect(() => {
    if (localStorage.getItem(KEY) === "night") setTheme("night");
  }, [setTheme]);
}
