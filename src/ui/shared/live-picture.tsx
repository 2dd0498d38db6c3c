"use client";
import { useEffect, useRef, useState } from "react";
import type { Focus, Scene } from "@/core/scene/marks";
import type { LivePicture as Live, StartPicture } from "@/render/painter/live";
import { useMarkWalk } from "./mark-walk";
import { PictureNumbers } from "./picture-numbers";

interface Props {
  /** What draws it, once that is here; always the same. */
  by: () => Promise<StartPicture>;
  scene: Scene;
  onFocus?: (focus: Focus | null) => void;
  onPart?: (part: string | null) => void;
  /** What the picture is called. */
  name: string;
}

function wantsMotion(): boolean {
  return !window.matchMedia("(prefers-reduced-motion: reduce)").matches;
}

/**
 * A scene drawn live: it moves to its next state, answers the pointer and has a tooltip. Readers who cannot
 * see it get its description, its marks one by one by arrow keys, and its numbers as a table.
 */
export function LivePicture({ by, scene, onFocus, onPart, name }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const listen = useRef({ onFocus, onPart });
  const [live, setLive] = useState<Live | null>(null);
  const { width, height } = scene;
  const size = useRef({ width, height });
  useEffect(() => {
    listen.current = { onFocus, onPart };
  });
  useEffect(() => {
    let made: Live | null = null;
    let gone = false;
    void by().then((start) => {
      if (gone || !host.current) return;
      made = start(host.current, size.current, {
        onFocus: (focus) => listen.current.onFocus?.(focus),
        onPart: (part) => listen.current.onPart?.(part),
      });
      setLive(made);
    });
    return () => {
      gone = true;
      made?.dispose();
    };
  }, [by]);
  useEffect(() => {
    size.current = { width, height };
    live?.resize(width, height);
  }, [live, width, height]);
  useEffect(() => live?.draw(scene, !wantsMotion()), [live, scene]);
  const walk = useMarkWalk(scene, `Marks of ${name}`, live, onFocus);
  const bordered = scene.border && scene.border.color !== "none";
  return (
    <div className="relative" style={{ width, height }}>
      <div
        ref={walk.over}
        className="picture relative overflow-hidden"
        style={{
          width,
          height,
          background: scene.background ?? undefined,
          borderRadius: scene.border?.radius,
          boxShadow: bordered ? `inset 0 0 0 1px ${scene.border?.color}` : undefined,
        }}
      >
        <div role="img" aria-label={scene.description}>
          <div ref={host} aria-hidden="true" style={{ width, height }} />
        </div>
      </div>
      <PictureNumbers name={name} datums={walk.datums} />
    </div>
  );
}
