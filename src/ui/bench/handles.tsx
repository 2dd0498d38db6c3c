"use client";
import { type PointerEvent, useRef, useState } from "react";
import type { Handle } from "@/core/scene/marks";
import { keyedValue, valueAt } from "@/core/scene/track";

/** The room in which a handle is taken hold of, in pixels of the screen. */
const SIZE = 24;

/** The points on the stage that are dragged, or moved by arrow keys, to change one number each. */
export function Handles({
  handles,
  scale,
  onMove,
}: {
  handles: Handle[];
  /** How large the stage is drawn: handles stay as large as a finger needs. */
  scale: number;
  onMove: (handle: Handle, value: number) => void;
}) {
  const layer = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<string | null>(null);
  const move = (handle: Handle) => (event: PointerEvent) => {
    if (held !== handle.id || !layer.current) return;
    const box = layer.current.getBoundingClientRect();
    // Where the stage is drawn smaller, so is the way of the pointer.
    const scale = box.width / layer.current.offsetWidth || 1;
    const [x, y] = [(event.clientX - box.left) / scale, (event.clientY - box.top) / scale];
    onMove(handle, valueAt(handle, x, y));
  };
  return (
    <div ref={layer} className="pointer-events-none absolute inset-0">
      {handles.map((handle) => (
        <button
          key={handle.id}
          type="button"
          role="slider"
          aria-label={handle.label}
          aria-valuemin={handle.from}
          aria-valuemax={handle.to}
          aria-valuenow={handle.value}
          aria-valuetext={handle.text}
          className="group pointer-events-auto absolute z-10 flex -translate-1/2 touch-none items-center justify-center rounded-full"
          style={{ left: handle.x, top: handle.y, width: SIZE / scale, height: SIZE / scale }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setHeld(handle.id);
          }}
          onPointerMove={move(handle)}
          onPointerUp={() => setHeld(null)}
          onPointerCancel={() => setHeld(null)}
          onKeyDown={(event) => {
            const value = keyedValue(handle, event.key);
            if (value === null) return;
            event.preventDefault();
            onMove(handle, value);
          }}
        >
          <span className="block size-3 rounded-full border-[2.5px] border-signal bg-sheet transition-transform group-hover:scale-125" />
          <span
            className={`absolute top-full mt-0.5 rounded-sm border border-signal/40 bg-signal-tint px-1.5 font-mono text-xs whitespace-nowrap text-signal ${held === handle.id ? "" : "opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100"}`}
          >
            {handle.text}
          </span>
        </button>
      ))}
    </div>
  );
}
