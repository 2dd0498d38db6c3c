/**
 * A type family that ships for visuals: `css` is what the page loads, `file` begins the names of its static
 * cuts.
 */
export interface Family {
  id: string;
  name: string;
  css: string;
  file: string;
}

/** The families that ship, in the order they are offered. */
export const FAMILIES: Family[] = [
  { id: "archivo", name: "Archivo", css: "'Archivo Variable', Archivo, sans-serif", file: "archivo" },
  {
    id: "source serif",
    name: "Source Serif",
    css: "'Source Serif 4 Variable', 'Source Serif 4', serif",
    file: "source-serif-4",
  },
  { id: "barlow", name: "Barlow Condensed", css: "'Barlow Condensed', sans-serif", file: "barlow-condensed" },
  { id: "nunito", name: "Nunito", css: "'Nunito Variable', Nunito, sans-serif", file: "nunito" },
];

/** A family by its id, or the first where there is none of it. */
export const familyOf = (id: string): Family => FAMILIES.find((f) => f.id === id) ?? FAMILIES[0];
