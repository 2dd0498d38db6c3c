"use client";
import { useEffect, useRef } from "react";
import type { Board } from "@/core/project/schema";
import { Answers } from "@/present/answers";
import { PresentedBoard } from "@/present/present";
import { startPainter } from "@/render/painter/painter";
import { useProject } from "../shared/project-context";
import { useAsking } from "../shared/results";
import { useTheme } from "../shared/theme";

const wantsMotion = () => !window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** A board as it is presented: by what presents it outside of the application too. */
export function Presented({ board, onClose }: { board: Board; onClose: () => void }) {
  const project = useProject((s) => s.document);
  const theme = useTheme((s) => s.theme);
  const ask = useAsking();
  const host = useRef<HTMLDivElement>(null);
  const shown = useRef<PresentedBoard | null>(null);
  const close = useRef(onClose);
  useEffect(() => {
    close.current = onClose;
  });
  useEffect(() => {
    if (!host.current) return;
    const options = {
      answers: new Answers((queries) => Promise.all(queries.map(ask))),
      start: startPainter,
      theme,
      wantsMotion,
      onClose: () => close.current(),
    };
    if (shown.current) shown.current.update({ project, board }, options);
    else shown.current = new PresentedBoard(host.current, { project, board }, options);
  }, [project, board, theme, ask]);
  useEffect(
    () => () => {
      shown.current?.dispose();
      shown.current = null;
    },
    [],
  );
  return <div ref={host} className="presented" />;
}
