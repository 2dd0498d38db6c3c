import type { Edit } from "./edits";

import type { Visual } from "./schema";

/** What a handle changes: a dial ("part.dial"), the target, or the edge of a zone (its place in the list). */
export type HandleEdit =
  | { type: "dial"; dial: string }
  | { type: "target" }
  | { type: "zone edge"; at: number };

/** The edit that a handle's new value means for its visual. A target that a measure gives cannot be moved. */
export function editByHandle(visual: Visual, edit: HandleEdit, value: number): Edit {
  switch (edit.type) {
    case "dial":
      return { type: "set dial", id: visual.id, dial: edit.dial, value };
    case "target":
      return visual.target && "input" in visual.target
        ? { type: "change input", id: visual.target.input, change: { value } }
        : { type: "change visual", id: visual.id, change: { target: { number: value } } };
    case "zone edge": {
      const edge = visual.zones[edit.at]?.to;
      if (typeof edge === "object" && edge !== null && "input" in edge)
        return { type: "change input", id: edge.input, change: { value } };
      return {
        type: "change visual",
        id: visual.id,
        change: {
          zones: visual.zones.map((zone, i) => (i === edit.at ? { ...zone, to: value } : zone)),
        },
      };
    }
  }
}
