"use client";
import type { StartPicture } from "@/render/painter/live";
import { startPainter } from "@/render/painter/painter";

/** The light painter, for boards as they are looked at. */
export const byPainter = async (): Promise<StartPicture> => startPainter;

/** The chart library, for the stage and for arranging: fetched by the screens that draw with it. */
export const byCharts = (): Promise<StartPicture> =>
  import("@/render/echarts-series").then((m) => m.startPicture);
