import type { Scene } from "@/core/scene/marks";
import { settings } from "../settings";
import { ThreadPool } from "../threads/pool";
import { startThread } from "../threads/thread";

type Pictures = ThreadPool<{ scene: Scene; scale: number }, Uint8Array>;
const shared = globalThis as { cavloPictures?: Pictures };

function running(): Pictures {
  shared.cavloPictures ??= new ThreadPool<{ scene: Scene; scale: number }, Uint8Array>({
    start: () => startThread("picture-worker"),
    most: 2,
    limit: () => settings.queryTime,
    tooLong: "Drawing this picture took too long and was stopped. Make it smaller, or take it as SVG.",
    isHeavy: () => false,
  });
  return shared.cavloPictures;
}

/**
 * Draws a scene as PNG bytes, away from the thread that answers everybody. Rejects with a 503 HttpError where
 * that takes too long.
 */
export function drawPng(
  scene: Scene,
  scale: number,
  owner: string,
  signal?: AbortSignal,
): Promise<Uint8Array> {
  return running().ask({ scene, scale }, owner, signal);
}
