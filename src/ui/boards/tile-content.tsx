"use client";
import { memo, useEffect, useRef } from "react";
import type { Tile } from "@/core/project/schema";
import { GONE, stillTile } from "@/present/still-tiles";
import { TextTile } from "@/present/text-tile";
import { VisualTile } from "@/present/visual-tile";
import { startPainter } from "@/render/painter/painter";
import { useDesign } from "../shared/design";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import type { ShownText, ShownVisual } from "./tiles-shown";

const isStill = () => false;
const nothing = () => {};
const NOTHING: ShownText = { names: {}, notes: [] };

/** What stands in a tile, drawn by what draws it for readers. */
export const TileContent = memo(function TileContent({
  tile,
  shown,
  text,
}: {
  tile: Tile;
  shown: ShownVisual | undefined;
  text: ShownText | undefined;
}) {
  switch (tile.type) {
    case "visual":
      return shown ? (
        <PaintedVisual key={tile.as} as={tile.as} shown={shown} />
      ) : (
        <p className="board-text">{GONE.visual}</p>
      );
    case "text":
      return <WrittenText text={tile.text} {...(text ?? NOTHING)} />;
    default:
      return <Still tile={tile} />;
  }
});

function PaintedVisual({ as, shown }: { as: "drawing" | "table"; shown: ShownVisual }) {
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<VisualTile | null>(null);
  useEffect(() => {
    const made = new VisualTile(startPainter, isStill, as);
    view.current = made;
    host.current?.replaceChildren(made.root);
    return () => made.dispose();
  }, [as]);
  const { visual, data, pending, notes, failing } = shown;
  useEffect(() => {
    view.current?.show({
      visual,
      data,
      design,
      theme,
      pending,
      part: null,
      lit: null,
      onPick: null,
      onEnter: nothing,
      menu: () => [],
      notes,
      failing,
      trail: [],
      onUp: nothing,
    });
  }, [visual, data, design, theme, pending, notes, failing]);
  return <div ref={host} className="size-full" />;
}

function WrittenText({ text, names, notes }: { text: string } & ShownText) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<TextTile | null>(null);
  useEffect(() => {
    view.current ??= new TextTile();
    view.current.show(text, names, notes);
    const { root } = view.current;
    if (!root.isConnected) host.current?.replaceChildren(root);
    // A text that its tile is too low for is scrolled by readers, whom nothing tells.
    const look = () => root.toggleAttribute("data-cut", root.scrollHeight > root.clientHeight + 1);
    const observer = new ResizeObserver(look);
    observer.observe(root);
    look();
    return () => observer.disconnect();
  }, [text, names, notes]);
  return <div ref={host} className="size-full" />;
}

function Still({ tile }: { tile: Parameters<typeof stillTile>[0] }) {
  const host = useRef<HTMLDivElement>(null);
  const pictures = useProject((s) => s.document.pictures);
  useEffect(() => host.current?.replaceChildren(stillTile(tile, { pictures })), [tile, pictures]);
  return <div ref={host} className="size-full" />;
}
