"use client";
import { RadioGroup } from "radix-ui";
import { FORMS, type Form, fitsWhat, type What } from "./what";

const WORDS: Record<Form, { name: string; what: string }> = {
  picture: { name: "Picture", what: "SVG or PNG, also to the clipboard" },
  element: { name: "Element", what: "alive in a page of your own" },
  file: { name: "File that works alone", what: "one HTML" },
  code: { name: "Code", what: "HTML, chart option, component" },
  numbers: { name: "Numbers", what: "CSV, XLSX, JSON, NDJSON" },
  project: { name: "Project", what: "everything, to be opened again" },
};

/** As what something is taken out. */
export function FormChoice({
  what,
  form,
  onChange,
}: {
  what: What;
  form: Form;
  onChange: (form: Form) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label="As what"
      value={form}
      onValueChange={(next) => onChange(next as Form)}
      className="grid grid-cols-[repeat(auto-fit,minmax(96px,1fr))] gap-2"
    >
      {FORMS.map((one) => {
        const fits = fitsWhat(one, what);
        return (
          <RadioGroup.Item
            key={one}
            value={one}
            disabled={!fits}
            title={fits ? undefined : "Of one visual at a time"}
            className="flex min-h-[74px] cursor-pointer flex-col rounded-md border border-rule bg-sheet px-2.5 py-2 text-left hover:border-faint disabled:cursor-default disabled:opacity-45 data-[state=checked]:border-verdigris data-[state=checked]:shadow-[inset_0_0_0_1px_var(--verdigris)]"
          >
            <span className="text-sm font-semibold">{WORDS[one].name}</span>
            <span className="text-xs leading-snug text-muted">
              {fits ? WORDS[one].what : "of one visual at a time"}
            </span>
          </RadioGroup.Item>
        );
      })}
    </RadioGroup.Root>
  );
}
