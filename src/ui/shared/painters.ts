"use client";
import type { StartPicture } from "@/render/painter/live";

/** The chart library, for the stage and for arranging: fetched by the screens that draw with it. */
export const byCharts = (): Promise<StartPicture> =>
  import("@/render/echarts-series").then((m) => m.startPicture);
