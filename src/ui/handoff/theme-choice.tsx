"use client";
import { Choose } from "../shared/choose";
import { Labelled } from "../shared/labelled";

/** In which theme something is taken out; `auto`: as whoever looks at it has it. */
export function ThemeChoice({
  value,
  auto = false,
  onChange,
}: {
  value: "light" | "night" | "auto";
  auto?: boolean;
  onChange: (theme: "light" | "night" | "auto") => void;
}) {
  return (
    <Labelled label="Theme">
      {(id) => (
        <Choose
          id={id}
          value={value}
          options={[
            { value: "light", label: "light" },
            { value: "night", label: "night" },
            ...(auto ? [{ value: "auto", label: "as its reader has it" }] : []),
          ]}
          onChange={(t) => onChange(t as "light" | "night" | "auto")}
        />
      )}
    </Labelled>
  );
}
