"use client";
import { useEffect, useState } from "react";
import { later, UNASKED } from "./fetched-later";
import type { Tip } from "./tip";

// The bubble is fetched when there is first something to tell.
const TipBubble = later(() => import("./tip-bubble").then((m) => m.TipBubble), UNASKED);

/** A pointer has to rest for so long, in milliseconds. */
const REST = 450;

/** The whole text of an element that shows only its beginning; nothing where all of it is seen. */
function cutText(element: Element): string {
  if (!(element instanceof HTMLElement) || element.scrollWidth <= element.clientWidth) return "";
  return element instanceof HTMLInputElement ? element.value : (element.textContent ?? "");
}

/** Whether a title only says what can be read in its element anyway. */
const isSeen = (titled: HTMLElement): boolean =>
  (titled.textContent ?? "").includes(titled.title) &&
  [titled, ...titled.querySelectorAll(".truncate")].every((part) => cutText(part) === "");

/** What an element has to tell: its title, or its whole text where that is cut. */
function tellingOf(element: Element, byFocus: boolean): { element: HTMLElement; text: string } | null {
  const titled = element.closest<HTMLElement>("[title]");
  if (titled?.title) return isSeen(titled) ? null : { element: titled, text: titled.title };
  const cut = byFocus
    ? (element.closest(".truncate") ?? element.querySelector(".truncate"))
    : element.closest(".truncate");
  const text = cut ? cutText(cut) : "";
  return cut && text ? { element: cut as HTMLElement, text } : null;
}

/**
 * Tells what the pointer or the focus rests on: titles of buttons, and the whole of what is cut. One for the
 * window, so that nothing needs a bubble of its own.
 */
export function Tips() {
  const [tip, setTip] = useState<Tip | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let told: HTMLElement | null = null;
    let title: string | null = null;
    const hide = () => {
      clearTimeout(timer);
      // While a bubble tells it, the browser's own does not.
      if (told && title !== null && !told.title) told.title = title;
      told = null;
      title = null;
      setTip(null);
    };
    const show = (element: Element, byFocus: boolean) => {
      const telling = tellingOf(element, byFocus);
      if (!telling?.element.isConnected) return;
      hide();
      told = telling.element;
      if (told.title) {
        title = told.title;
        told.removeAttribute("title");
      }
      const { left, top, width, height } = told.getBoundingClientRect();
      setTip({ text: telling.text, box: { left, top, width, height } });
    };
    const over = ({ target, pointerType }: PointerEvent) => {
      if (!(target instanceof Element) || pointerType !== "mouse") return;
      if (told?.contains(target)) return;
      hide();
      timer = setTimeout(() => show(target, false), REST);
    };
    const focused = ({ target }: FocusEvent) => {
      hide();
      if (target instanceof Element && target.matches(":focus-visible") && !target.matches("input, textarea"))
        show(target, true);
    };
    const keyed = ({ key }: KeyboardEvent) => {
      if (key === "Escape") hide();
    };
    document.addEventListener("pointerover", over);
    document.addEventListener("pointerdown", hide);
    document.addEventListener("focusin", focused);
    document.addEventListener("focusout", hide);
    document.addEventListener("keydown", keyed);
    window.addEventListener("scroll", hide, true);
    return () => {
      hide();
      document.removeEventListener("pointerover", over);
      document.removeEventListener("pointerdown", hide);
      document.removeEventListener("focusin", focused);
      document.removeEventListener("focusout", hide);
      document.removeEventListener("keydown", keyed);
      window.removeEventListener("scroll", hide, true);
    };
  }, []);
  return tip && <TipBubble tip={tip} />;
}
