/** The five steps of the work, in their order. */
export const STEPS = [
  { path: "data", label: "Data" },
  { path: "measures", label: "Measures" },
  { path: "visuals", label: "Visuals" },
  { path: "boards", label: "Boards" },
  { path: "hand-off", label: "Hand-off" },
] as const;
