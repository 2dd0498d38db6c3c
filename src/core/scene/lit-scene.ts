import type { Scene } from "./marks";

/**
 * The scene with one part lit: what belongs to others steps back. A part that draws nothing leaves it as it
 * is.
 */
export function litScene(scene: Scene, part: string | null): Scene {
  if (!part || !scene.marks.some((m) => m.part === part)) return scene;
  return {
    ...scene,
    marks: scene.marks.map((m) => (m.part === part ? m : { ...m, opacity: (m.opacity ?? 1) * 0.35 })),
  };
}
