import type { Scene } from "@/core/scene/marks";
import { sceneToPng } from "@/render/png";
import { settings } from "../settings";
import { answerInThread } from "../threads/answer-in-thread";

answerInThread(
  ({ scene, scale }: { scene: Scene; scale: number }) =>
    new Uint8Array(sceneToPng(scene, scale, settings.root)),
);
