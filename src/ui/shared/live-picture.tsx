"use client";
import { useEffect, useRef, useState } from "react";
import type { RowKey } from "@/core/rows/row-key";
import type { Scene } from "@/core/scene/marks";
import type { LivePicture as Live } from "@/render/echarts-series";

interface Props {
  scene: Scene;
  onFocus?: (key: RowKey | null) => void;
  onPart?: (part: string | null) => void;
  onPick?: (key: RowKey) => void;
}

function wantsMotion(): boolean {
  return !window.matchMedia("(prefers-reduced-motion: reduce)").matches;
}

/**
 * A scene drawn live: it moves to its next state, answers the pointer and has a tooltip. Readers who cannot
 * see it get its description.
 */
export function LivePicture({ scene, onFocus, onPart, onPick }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const listen = useRef({ onFocus, onPart, onPick });
  const [live, setLive] = useState<Live | null>(null);
  const { width, height } = scene;
  const size = useRef({ width, height });
  useEffect(() => {
    listen.current = { onFocus, onPart, onPick };
  });
  useEffect(() => {
    let made: Live | null = null;
    let gone = false;
    // The chart library is only fetched by screens that draw.
    void import("@/render/echarts-series").then(({ startPicture }) => {
      if (gone || !host.current) return;
      made = startPicture(host.current, size.current, {
        onFocus: (key) => listen.current.onFocus?.(key),
        onPart: (part) => listen.current.onPart?.(part),
        onPick: (key) => listen.current.onPick?.(key),
      });
      setLive(made);
    });
    return () => {
      gone = true;
      made?.dispose();
    };
  }, []);
  useEffect(() => {
    size.current = { width, height };
    live?.resize(width, height);
  }, [live, width, height]);
  useEffect(() => live?.draw(scene, !wantsMotion()), [live, scene]);
  const bordered = scene.border && scene.border.color !== "none";
  return (
    <div
      role="img"
      aria-label={scene.description}
      className="picture relative overflow-hidden"
      style={{
        width,
        height,
        background: scene.background ?? undefined,
        borderRadius: scene.border?.radius,
        boxShadow: bordered ? `inset 0 0 0 1px ${scene.border?.color}` : undefined,
      }}
    >
      <div ref={host} aria-hidden="true" style={{ width, height }} />
    </div>
  );
}
