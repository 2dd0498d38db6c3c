"use client";
import { FINISHES } from "@/core/kinds/finishes";
import type { Board, BoardLook } from "@/core/project/schema";
import { PALETTES } from "@/core/scene/palettes";
import { Choose } from "../shared/choose";
import { Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { GroundField } from "./ground-field";

const OWN = { value: "", label: "each its own" };
const FRAMES: { value: BoardLook["frame"]; label: string }[] = [
  { value: "own", label: "each its own" },
  { value: "bare", label: "none" },
  { value: "line", label: "line" },
  { value: "card", label: "line and ground" },
  { value: "plate", label: "ground" },
];

/** What all visuals of a board are drawn in here, whatever their own look; elsewhere they stay as they are. */
export function BoardLookPanel({ board }: { board: Board }) {
  const palettes = useProject((s) => s.document.palettes);
  const finishes = useProject((s) => s.document.finishes);
  const apply = useProject((s) => s.apply);
  const { palette, finish, ground, frame } = board.look;
  const change = (look: Partial<BoardLook>, group?: string) =>
    apply({ type: "change board", board: board.id, change: { look } }, group);
  const listed = (all: { id: string; name: string }[]) => [
    OWN,
    ...all.map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <>
      <p className="text-xs text-muted">
        For all visuals of this board at once. Elsewhere they keep their own.
      </p>
      <Labelled label="Palette">
        {(id) => (
          <Choose
            id={id}
            value={palette ?? ""}
            options={listed([...PALETTES, ...palettes].filter((p) => p.type === "categorical"))}
            onChange={(next) => change({ palette: next || null })}
          />
        )}
      </Labelled>
      <Labelled label="Finish">
        {(id) => (
          <Choose
            id={id}
            value={finish ?? ""}
            options={listed([...FINISHES, ...finishes])}
            onChange={(next) => change({ finish: next || null })}
          />
        )}
      </Labelled>
      <Labelled label="Tile frame">
        {(id) => (
          <Choose
            id={id}
            value={frame}
            options={FRAMES}
            onChange={(next) => change({ frame: next as BoardLook["frame"] })}
          />
        )}
      </Labelled>
      <GroundField
        label="Background"
        value={ground}
        onChange={(next, group) => change({ ground: next }, group)}
      />
    </>
  );
}
