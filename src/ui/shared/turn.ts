"use client";
import { useEffect, useState } from "react";

const waiting: (() => void)[] = [];
/** So many milliseconds must be free; between the frames of a drag there are fewer. */
const ENOUGH = 20;
let isUnderWay = false;
/** Whether something is dragged, or a button held: its frames go first. */
let isInHand = false;
if (typeof window !== "undefined")
  for (const type of ["pointerdown", "pointerup", "pointercancel"])
    window.addEventListener(type, () => (isInHand = type === "pointerdown"), true);

function goOn(deadline?: IdleDeadline): void {
  const isFree = !isInHand && (!deadline || deadline.timeRemaining() >= ENOUGH);
  if (isFree) waiting.shift()?.();
  isUnderWay = waiting.length > 0;
  if (isUnderWay) whenIdle();
}

/** Some browsers do not say when they are idle. */
function whenIdle(): void {
  if (typeof requestIdleCallback === "function") requestIdleCallback(goOn);
  else setTimeout(goOn, ENOUGH);
}

/**
 * False until it is one's turn: what can come after the screen stands comes one by one, whenever the window
 * has nothing else to do.
 */
export function useTurn(): boolean {
  const [isOn, setOn] = useState(false);
  useEffect(() => {
    const take = () => setOn(true);
    waiting.push(take);
    if (!isUnderWay) {
      isUnderWay = true;
      whenIdle();
    }
    return () => {
      const at = waiting.indexOf(take);
      if (at >= 0) waiting.splice(at, 1);
    };
  }, []);
  return isOn;
}
