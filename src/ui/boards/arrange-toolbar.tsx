"use client";
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  ArrowLeftRight,
  ClipboardPaste,
  Copy,
  FoldVertical,
  Frame,
  type LucideIcon,
  Monitor,
  MoveHorizontal,
  MoveVertical,
  Smartphone,
  Trash2,
} from "lucide-react";
import {
  alignedPlaces,
  closedUpPlaces,
  distributedPlaces,
  type Edge,
  sameSizePlaces,
  sectionAround,
  swappedPlaces,
} from "@/core/project/arrange";
import { BOARD_WIDTHS } from "@/core/project/board-choices";
import { LONGEST, MOST } from "@/core/project/most";
import type { Board } from "@/core/project/schema";
import type { Place } from "@/core/project/tile-layout";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { newId } from "../shared/ids";
import { useProject } from "../shared/project-context";
import { type SeenAt, windowWidth } from "./seen-at";

const EDGES: { edge: Edge; label: string; icon: LucideIcon }[] = [
  { edge: "left", label: "Line up at the left", icon: AlignStartVertical },
  { edge: "centre", label: "Line up at the centre", icon: AlignCenterVertical },
  { edge: "right", label: "Line up at the right", icon: AlignEndVertical },
  { edge: "top", label: "Line up at the top", icon: AlignStartHorizontal },
  { edge: "middle", label: "Line up at the middle", icon: AlignCenterHorizontal },
  { edge: "bottom", label: "Line up at the bottom", icon: AlignEndHorizontal },
];

/** The widths at which a fluid board is seen: that of this window, and usual ones. */
const fluidSeen = (): number[] => [...new Set([windowWidth(), 1280, 1920])].sort((a, b) => a - b);

function Tool({
  label,
  icon: Icon,
  disabled = false,
  onClick,
}: {
  label: string;
  icon: LucideIcon;
  disabled?: boolean;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      className="icon-button size-7"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      <Icon size={15} />
    </button>
  );
}

/** What a board is made for and seen at, and what is done with the tiles that are selected. */
export function ArrangeToolbar({
  board,
  selected,
  seenAt,
  isTrueSize,
  onTrueSize,
  onFluid,
  onPhone,
  onPlace,
  onSelect,
  onCopy,
  onPaste,
  onRemove,
}: {
  board: Board;
  selected: readonly string[];
  seenAt: SeenAt;
  isTrueSize: boolean;
  onTrueSize: (isTrueSize: boolean) => void;
  onFluid: (width: number) => void;
  onPhone: (isPhone: boolean) => void;
  onPlace: (places: Place[]) => void;
  onSelect: (ids: string[]) => void;
  onCopy: () => void;
  /** Null where nothing was copied. */
  onPaste: (() => void) | null;
  onRemove: () => void;
}) {
  const apply = useProject((s) => s.apply);
  const { tiles, width } = board;
  const ids = new Set(selected);
  const some = selected.length;
  const around = tiles.length < MOST.board.tiles ? sectionAround(tiles, ids) : null;
  const addSection = () => {
    if (!around) return;
    const id = newId();
    const section = {
      type: "section",
      heading: "Section",
      ground: "panel",
      border: true,
      phone: null,
    } as const;
    apply({
      type: "add tiles",
      board: board.id,
      tiles: [{ id, ...section, ...around.section }],
      places: around.places,
    });
    onSelect([id]);
  };
  const gaps = closedUpPlaces(tiles);
  const isPhone = seenAt === "phone";
  const isSwappable = some === 2 && tiles.every((t) => !ids.has(t.id) || t.type !== "section");
  return (
    <div
      role="toolbar"
      aria-label="Arrange"
      className="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-rule px-4 py-1.5"
    >
      <span className="w-48">
        <CommitField
          label="Board name"
          value={board.name}
          check={(t) => (t.trim() ? null : "A name is needed.")}
          longest={LONGEST.name}
          onCommit={(t) => apply({ type: "rename board", id: board.id, name: t.trim() })}
        />
      </span>
      <span className="w-36">
        <Choose
          label="Design width"
          value={String(width)}
          options={[
            { value: "fluid", label: "Fluid width" },
            ...BOARD_WIDTHS.map((w) => ({ value: String(w), label: `${w} px wide` })),
          ]}
          onChange={(next) =>
            apply({
              type: "change board",
              board: board.id,
              change: { width: BOARD_WIDTHS.find((w) => String(w) === next) ?? "fluid" },
            })
          }
        />
      </span>
      <span className="flex items-center" role="group" aria-label="Preview at">
        {width === "fluid" ? (
          fluidSeen().map((w) => (
            <button
              key={w}
              type="button"
              aria-pressed={seenAt === w}
              title={w === windowWidth() ? "As wide as this window" : undefined}
              className={`button h-7 ${seenAt === w ? "button-strong" : ""}`}
              onClick={() => {
                onPhone(false);
                onFluid(w);
              }}
            >
              <Monitor size={13} /> {w}
            </button>
          ))
        ) : (
          <button
            type="button"
            aria-pressed={!isPhone}
            className={`button h-7 ${isPhone ? "" : "button-strong"}`}
            onClick={() => onPhone(false)}
          >
            <Monitor size={13} /> {width}
          </button>
        )}
        <button
          type="button"
          aria-pressed={isPhone}
          className={`button h-7 ${isPhone ? "button-strong" : ""}`}
          onClick={() => onPhone(true)}
        >
          <Smartphone size={13} /> Phone
        </button>
      </span>
      <button
        type="button"
        aria-pressed={isTrueSize}
        title="As large as its readers see it, and not as large as there is room here"
        className={`button h-7 ${isTrueSize ? "button-strong" : ""}`}
        onClick={() => onTrueSize(!isTrueSize)}
      >
        True size
      </button>
      <span className="flex-1" />
      <span className="flex flex-wrap items-center">
        <span role="status" className="pr-2 text-xs text-muted">
          {some > 0 && `${some} selected`}
        </span>
        {some > 1 && !isPhone && (
          <>
            {EDGES.map(({ edge, label, icon }) => (
              <Tool
                key={edge}
                label={label}
                icon={icon}
                onClick={() => onPlace(alignedPlaces(tiles, ids, edge))}
              />
            ))}
            <Tool
              label="Same space across"
              icon={AlignHorizontalSpaceBetween}
              disabled={some < 3}
              onClick={() => onPlace(distributedPlaces(tiles, ids, "across"))}
            />
            <Tool
              label="Same space down"
              icon={AlignVerticalSpaceBetween}
              disabled={some < 3}
              onClick={() => onPlace(distributedPlaces(tiles, ids, "down"))}
            />
            <Tool
              label="As wide as the first"
              icon={MoveHorizontal}
              onClick={() => onPlace(sameSizePlaces(tiles, ids, "w"))}
            />
            <Tool
              label="As high as the first"
              icon={MoveVertical}
              onClick={() => onPlace(sameSizePlaces(tiles, ids, "h"))}
            />
          </>
        )}
        {some > 0 && (
          <>
            {isSwappable && (
              <Tool
                label="Swap places"
                icon={ArrowLeftRight}
                onClick={() => onPlace(swappedPlaces(tiles, selected[0], selected[1]))}
              />
            )}
            {around && <Tool label="Put a section around" icon={Frame} onClick={addSection} />}
            <Tool label="Copy" icon={Copy} onClick={onCopy} />
          </>
        )}
        {!isPhone && gaps.length > 0 && (
          <Tool label="Close up" icon={FoldVertical} onClick={() => onPlace(gaps)} />
        )}
        {onPaste && <Tool label="Paste" icon={ClipboardPaste} onClick={onPaste} />}
        {some > 0 && <Tool label="Remove the selected" icon={Trash2} onClick={onRemove} />}
      </span>
    </div>
  );
}
