"use client";
import { useId, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { OFFERED_FORMATS } from "@/core/base/number-format";
import {
  checkTemplate,
  fillTemplate,
  openPlace,
  type TemplateNames,
  type TemplateValue,
} from "@/core/base/template";
import { tooLong } from "./too-long";
import { unsaved } from "./unsaved-field";

/** What is offered at a place: the text that takes it, and what that writes now. */
interface Offer {
  text: string;
  says: string;
}

const DAY_FORMATS = ["dd MMM yyyy", "MMM yyyy", "yyyy", "YYYY-'W'ww", "dd.MM.yyyy", "EEEE"];
const MOST_OFFERS = 60;

function formatsOf(value: TemplateValue | undefined): string[] {
  if (value === undefined || typeof value === "string") return [];
  if ("from" in value) return DAY_FORMATS;
  // What has no value yet may turn out to be a day.
  return value.value === null ? [...OFFERED_FORMATS, ...DAY_FORMATS] : [...OFFERED_FORMATS];
}

/** What can stand where the caret is: names after a brace, formats after a colon. */
function offersAt(text: string, caret: number, names: TemplateNames): Offer[] {
  const place = openPlace(text, caret);
  if (!place) return [];
  const typed = place.typed.trim().toLowerCase();
  if (place.name === null)
    return Object.keys(names)
      .filter((name) => name.toLowerCase().includes(typed))
      .sort((a, b) => Number(b.toLowerCase().startsWith(typed)) - Number(a.toLowerCase().startsWith(typed)))
      .map((name) => ({ text: name, says: fillTemplate(`{${name}}`, names) }));
  const { name } = place;
  const found = Object.entries(names).find(([known]) => known.toLowerCase() === name.toLowerCase());
  return formatsOf(found?.[1])
    .filter((format) => format.toLowerCase().includes(typed))
    .map((format) => ({ text: format, says: fillTemplate(`{${name}:${format}}`, names) }));
}

/**
 * A text with names in braces. After a brace it offers what can stand there, with what it says now; it
 * changes the document on Enter, where it has one line, or when it is left. Escape takes the old text back.
 */
export function TemplateField({
  id,
  label,
  value,
  names,
  longest,
  mono = false,
  rows = 1,
  takesAny = false,
  onCommit,
}: {
  id?: string;
  label?: string;
  value: string;
  names: TemplateNames;
  longest: number;
  mono?: boolean;
  /** How many lines it shows. */
  rows?: number;
  /** Whether it takes a text whose names mean nothing, or not yet: who shows it says so. */
  takesAny?: boolean;
  onCommit: (text: string) => void;
}) {
  const listId = useId();
  const field = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const Field = rows > 1 ? "textarea" : "input";
  const [text, setText] = useState<string | null>(null);
  const [caret, setCaret] = useState<number | null>(null);
  const [at, setAt] = useState(0);
  const shown = text ?? value;
  const all = caret === null ? [] : offersAt(shown, caret, names);
  const offers = all.slice(0, MOST_OFFERS);
  const active = Math.min(at, offers.length - 1);
  const problemIn = (typed: string) =>
    tooLong(typed, longest) ?? (takesAny ? null : (checkTemplate(typed, names)[0]?.message ?? null));
  const problem = text !== null && text !== value && offers.length === 0 ? problemIn(text) : null;
  const look = () => {
    setCaret(field.current?.selectionStart ?? null);
    setAt(0);
  };
  const commit = () => {
    setCaret(null);
    if (text === null || problemIn(text) !== null) return;
    if (text !== value) onCommit(text);
    setText(null);
  };
  const take = ({ text: offer }: Offer) => {
    const place = openPlace(shown, caret ?? 0);
    if (!place || caret === null) return;
    const rest = shown.slice(caret).replace(/^[^{}\s]*\}/, "");
    const before = `${shown.slice(0, place.from)}${offer}}`;
    // At once: a frame later it would take the caret back from who goes on typing.
    flushSync(() => {
      setText(before + rest);
      setCaret(null);
    });
    field.current?.setSelectionRange(before.length, before.length);
  };
  return (
    <div className="relative min-w-0" {...unsaved(text !== null || offers.length > 0)}>
      <Field
        ref={field}
        rows={rows > 1 ? rows : undefined}
        id={id}
        aria-label={label}
        // A field of several lines is a text box, which cannot be said to be open.
        role={rows > 1 ? undefined : "combobox"}
        aria-expanded={rows > 1 ? undefined : offers.length > 0}
        aria-controls={offers.length > 0 ? listId : undefined}
        aria-autocomplete="list"
        aria-activedescendant={offers.length ? `${listId}-${active}` : undefined}
        aria-invalid={problem !== null}
        autoComplete="off"
        value={shown}
        className={`field ${mono ? "font-mono" : ""} ${problem ? "border-signal" : ""} ${rows > 1 ? "h-auto resize-none py-1.5" : ""}`}
        onChange={(e) => {
          setText(e.target.value);
          look();
        }}
        onSelect={(e) => caret !== null && setCaret(e.currentTarget.selectionStart)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (offers.length > 0 && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
            e.preventDefault();
            setAt((active + (e.key === "ArrowDown" ? 1 : offers.length - 1)) % offers.length);
          } else if (offers.length > 0 && (e.key === "Enter" || e.key === "Tab")) {
            e.preventDefault();
            take(offers[active]);
          } else if (e.key === "Enter" && rows === 1) commit();
          else if (e.key === "Escape") {
            if (offers.length > 0) setCaret(null);
            else setText(null);
          }
        }}
      />
      {offers.length > 0 && (
        <div
          id={listId}
          role="listbox"
          aria-label="Names"
          className="absolute right-0 left-[-84px] z-30 mt-1 max-h-60 overflow-auto rounded-md border border-rule bg-sheet p-1 shadow-stage"
        >
          {offers.map((offer, i) => (
            <div
              key={offer.text}
              id={`${listId}-${i}`}
              role="option"
              tabIndex={-1}
              aria-selected={i === active}
              ref={(element) => {
                if (i === active) element?.scrollIntoView({ block: "nearest" });
              }}
              // The field keeps the focus.
              onPointerDown={(e) => {
                e.preventDefault();
                take(offer);
              }}
              className={`flex cursor-pointer items-baseline justify-between gap-3 rounded-sm px-2 py-1 text-sm ${i === active ? "bg-tint" : ""}`}
            >
              <span className="font-mono">{offer.text}</span>
              <span className="min-w-0 truncate text-muted">{offer.says}</span>
            </div>
          ))}
          {all.length > MOST_OFFERS && (
            <p className="px-2 py-1 text-sm text-muted">
              {all.length - MOST_OFFERS} more: type a part of the name.
            </p>
          )}
        </div>
      )}
      {problem && (
        <p role="alert" className="mt-1 text-xs text-signal">
          {problem}
        </p>
      )}
    </div>
  );
}
