"use client";
import type { StartPicture } from "@/render/painter/live";

/** The chart library, for the stage: fetched by the screen that draws with it. */
export const byCharts = (): Promise<StartPicture> =>
  import("@/render/echarts-series").then((m) => m.startPicture);
