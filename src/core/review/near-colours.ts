import { PALETTES } from "../scene/palettes";
import { colourDistance, SIGHTS, type Sight, seenAs } from "../scene/sight";
import { categoryColoursOf } from "../view/category-colours";
import { type DrawnFacts, type ReviewRule, turn } from "./finding";

/** Colours nearer than this in OKLab are taken for one where they do not touch. */
const NEAR = 0.04;
/** More categories are said by other rules. */
const MOST = 24;

/** Who takes two colours for one: everybody, or people with a deficiency. */
const WHO: Record<Sight | "all", string> = {
  all: "",
  deutan: " to who sees red and green alike",
  protan: " to who sees red and green alike",
  tritan: " to who sees blue and green alike",
};

type Coloured = ReturnType<typeof categoryColoursOf>;

/** The first two categories whose colours are too near, and to whom. */
function nearPair(coloured: Coloured): { a: string; b: string; who: keyof typeof WHO } | null {
  for (const who of ["all", ...(Object.keys(SIGHTS) as Sight[])] as const) {
    const seen = coloured.map(({ label, color }) => ({
      label,
      color,
      as: who === "all" ? color : seenAs(color, who),
    }));
    for (const [i, one] of seen.entries())
      for (const other of seen.slice(0, i)) {
        // What rules or one colour give to several of them is meant.
        if (one.color !== other.color && colourDistance(one.as, other.as) < NEAR)
          return { a: other.label, b: one.label, who };
      }
  }
  return null;
}

/** Whether a legend alone tells the categories of a picture by their colours. */
function isTold({ style, data }: DrawnFacts): boolean {
  if (!style.has("colours.by") || style.value("colours.by") !== "category") return false;
  // Bands have their names beside them; only their series go by colour.
  return !style.has("axis.names") || data.series.length > 1;
}

/** Two categories whose colours look alike, to everybody or to some. */
export const nearColours: ReviewRule = {
  id: "colours too near",
  look: (facts) => {
    const { visual, data, design } = facts;
    if (!isTold(facts)) return null;
    const coloured = categoryColoursOf(visual, data, design);
    const found = coloured.length > MOST ? null : nearPair(coloured);
    if (!found) return null;
    const apart = PALETTES.find((palette) => {
      if (palette.type !== "categorical") return false;
      const tried = { ...visual, dials: { ...visual.dials, "colours.palette": palette.id } };
      return nearPair(categoryColoursOf(tried, data, design)) === null;
    });
    return {
      text: `The colours of ${found.a} and ${found.b} look alike${WHO[found.who]}.`,
      why: "The legend tells them by nothing else.",
      ...(apart ? { mend: turn(`Take the palette ${apart.name}`, facts, "colours.palette", apart.id) } : {}),
    };
  },
};
