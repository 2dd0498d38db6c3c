"use client";
import { type RefObject, useEffect, useRef, useState } from "react";

/** The room within an element, in pixels, as it is laid out; null until it is measured. */
export function useSize<E extends HTMLElement>(): {
  element: RefObject<E | null>;
  size: { width: number; height: number } | null;
} {
  const element = useRef<E>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useEffect(() => {
    if (!element.current) return;
    const observer = new ResizeObserver(([{ contentRect }]) =>
      setSize({ width: contentRect.width, height: contentRect.height }),
    );
    observer.observe(element.current);
    return () => observer.disconnect();
  }, []);
  return { element, size };
}
