"use client";
import { Upload } from "lucide-react";
import { useId, useMemo, useRef, useState } from "react";
import { cutText } from "@/core/base/cut-text";
import { checkTemplate } from "@/core/base/template";
import type { TileChange } from "@/core/project/board-edits";
import { LONGEST, MOST } from "@/core/project/most";
import type { Board, OwnPicture, Tile } from "@/core/project/schema";
import { COLUMNS, LAST_ROW, MOST_ROWS, type Place } from "@/core/project/tile-layout";
import { namesForTexts } from "@/core/view/text-names";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { newId } from "../shared/ids";
import { Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { TemplateField } from "../shared/template-field";
import { TypedNumber } from "../shared/typed-number";
import { GroundField } from "./ground-field";

/** What can be changed of the one tile that is selected: what stands in it, and its place in numbers. */
export function TilePanel({ board, tile, name }: { board: Board; tile: Tile; name: string }) {
  const apply = useProject((s) => s.apply);
  const change = (by: TileChange, group?: string) =>
    apply({ type: "change tile", board: board.id, tile: tile.id, change: by }, group);
  return (
    <div role="group" aria-label={`Selected: ${name}`} className="flex flex-col gap-1.5">
      <p className="truncate text-sm font-semibold" title={name}>
        {name}
      </p>
      <Content tile={tile} change={change} />
      <PlaceFields
        tile={tile}
        onPlace={(place) =>
          apply({
            type: "place tiles",
            board: board.id,
            places: [{ ...place, id: tile.id }],
            moved: [tile.id],
          })
        }
      />
    </div>
  );
}

type Change = (by: TileChange, group?: string) => void;

function Content({ tile, change }: { tile: Tile; change: Change }) {
  switch (tile.type) {
    case "visual":
      return (
        <Labelled label="Drawn as">
          {(id) => (
            <Choose
              id={id}
              value={tile.as}
              options={[
                { value: "drawing", label: "its picture" },
                { value: "table", label: "a plain table" },
              ]}
              onChange={(as) => change({ as: as as "drawing" | "table" })}
            />
          )}
        </Labelled>
      );
    case "text":
      return <TextFields text={tile.text} change={change} />;
    case "picture":
      return <PictureFields tile={tile} change={change} />;
    case "line":
      return (
        <Labelled label="Runs">
          {(id) => (
            <Choose
              id={id}
              value={tile.along}
              options={[
                { value: "across", label: "across" },
                { value: "down", label: "down" },
              ]}
              onChange={(along) => change({ along: along as "across" | "down" })}
            />
          )}
        </Labelled>
      );
    case "section":
      return (
        <>
          <CommitField
            label="Title"
            value={tile.heading}
            placeholder="No heading"
            longest={LONGEST.heading}
            onCommit={(heading) => change({ heading })}
          />
          <GroundField
            label="Background"
            value={tile.ground}
            onChange={(ground, group) => change({ ground }, group)}
          />
          <label className="flex min-h-6 items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="accent-verdigris"
              checked={tile.border}
              onChange={(e) => change({ border: e.target.checked })}
            />
            Border
          </label>
        </>
      );
  }
}

function TextFields({ text, change }: { text: string; change: Change }) {
  const project = useProject((s) => s.document);
  const names = useMemo(() => namesForTexts(project), [project]);
  const [problem] = checkTemplate(text, names);
  return (
    <>
      <TemplateField
        label="Text"
        rows={6}
        takesAny
        value={text}
        names={names}
        longest={LONGEST.text}
        onCommit={(next) => change({ text: next })}
      />
      {problem && <p className="text-xs text-signal">{problem.message}</p>}
      <details className="text-xs text-muted">
        <summary className="cursor-pointer">What a text can hold</summary>
        <p className="pt-1"># Heading, **bold**, *italic*, - list, [link](https://…).</p>
        <p>
          Names in braces write what they stand for: type {"{"} and choose one. A format follows a colon:{" "}
          {"{today:dd MMM yyyy}"}.
        </p>
      </details>
    </>
  );
}

function PictureFields({ tile, change }: { tile: Extract<Tile, { type: "picture" }>; change: Change }) {
  const pictures = useProject((s) => s.document.pictures);
  const apply = useProject((s) => s.apply);
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState("");
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (pictures.length >= MOST.project.pictures)
      return setProblem(
        `A project has at most ${MOST.project.pictures} pictures: ${chosen.name} was not brought in.`,
      );
    // The parser is only fetched by those who upload something.
    const { pictureFrom } = await import("@/core/project/picture-file");
    const made = pictureFrom(new Uint8Array(await chosen.arrayBuffer()), chosen.name);
    if ("problem" in made) return setProblem(made.problem);
    setProblem("");
    const picture: OwnPicture = { id: newId(), name: cutText(chosen.name, 120), href: made.href };
    const group = `picture ${picture.id}`;
    apply({ type: "bring pictures", visual: null, pictures: [picture], of: {} }, group);
    change({ picture: picture.id }, group);
  };
  const isKnown = pictures.some((p) => p.id === tile.picture);
  return (
    <>
      <Labelled label="Picture">
        {(id) => (
          <Choose
            id={id}
            value={(isKnown && tile.picture) || ""}
            options={[
              ...(isKnown ? [] : [{ value: "", label: "choose one" }]),
              ...pictures.map((p) => ({ value: p.id, label: p.name })),
            ]}
            onChange={(picture) => picture && change({ picture })}
          />
        )}
      </Labelled>
      <input
        ref={file}
        type="file"
        accept=".svg,.png,image/svg+xml,image/png"
        className="sr-only"
        aria-label="Picture file"
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = "";
        }}
      />
      <button type="button" className="button self-start" onClick={() => file.current?.click()}>
        <Upload size={13} /> Bring an SVG or PNG
      </button>
      {problem && (
        <p role="alert" className="text-xs text-signal">
          {problem}
        </p>
      )}
      <CommitField
        label="What it shows"
        value={tile.shows}
        placeholder="What it shows, for who does not see it"
        longest={LONGEST.shows}
        onCommit={(shows) => change({ shows })}
      />
      <Labelled label="Fit">
        {(id) => (
          <Choose
            id={id}
            value={tile.fit}
            options={[
              { value: "whole", label: "whole" },
              { value: "fill", label: "fill the tile" },
            ]}
            onChange={(fit) => change({ fit: fit as "whole" | "fill" })}
          />
        )}
      </Labelled>
    </>
  );
}

/** The place of a tile in numbers, counted from 1. */
function PlaceFields({ tile, onPlace }: { tile: Place; onPlace: (place: Omit<Place, "id">) => void }) {
  const { x, y, w, h } = tile;
  const field = (
    label: string,
    value: number,
    [least, most]: [number, number],
    place: (n: number) => Partial<Place>,
  ) => (
    <NumberField
      label={label}
      value={value}
      least={least}
      most={most}
      onCommit={(n) => onPlace({ x, y, w, h, ...place(n) })}
    />
  );
  return (
    <div className="grid grid-cols-4 gap-1">
      {field("Column", x + 1, [1, COLUMNS - w + 1], (n) => ({ x: n - 1 }))}
      {field("Row", y + 1, [1, LAST_ROW + 1], (n) => ({ y: n - 1 }))}
      {field("Wide", w, [1, COLUMNS - x], (n) => ({ w: n }))}
      {field("High", h, [1, MOST_ROWS], (n) => ({ h: n }))}
    </div>
  );
}

function NumberField({
  label,
  value,
  least,
  most,
  onCommit,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onCommit: (n: number) => void;
}) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-col">
      <label htmlFor={id} className="truncate text-xs text-muted">
        {label}
      </label>
      <TypedNumber
        id={id}
        value={value}
        percent={false}
        check={(n) => (Number.isInteger(n) && n >= least && n <= most ? null : `${least} to ${most}.`)}
        onCommit={(n) => n !== null && onCommit(n)}
      />
    </div>
  );
}
