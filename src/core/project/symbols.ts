/** The symbols that a rule can have beside its colour. */
export const SYMBOLS = ["none", "circle", "triangle", "triangle down", "diamond", "square", "cross"] as const;
