import type { Project, Tile } from "@/core/project/schema";
import { element } from "./elements";

/** What is said in the place of something that is gone. */
export const GONE = {
  visual: "The visual of this tile was removed.",
  picture: "The picture of this tile was removed.",
};

/** What a tile shows that no answer changes: a picture, a line, the ground of a section. */
export function stillTile(
  tile: Extract<Tile, { type: "picture" | "line" | "section" }>,
  { pictures }: Pick<Project, "pictures">,
): HTMLElement {
  switch (tile.type) {
    case "picture": {
      // Readers see nothing where none is chosen yet.
      if (tile.picture === null) return element("div");
      const picture = pictures.find((p) => p.id === tile.picture);
      if (!picture) return element("div", { class: "board-text" }, GONE.picture);
      return element("img", {
        class: `board-image board-image-${tile.fit}`,
        src: picture.href,
        alt: tile.shows,
      });
    }
    case "line":
      return element("hr", { class: `board-line board-line-${tile.along}` });
    case "section": {
      const heading = tile.heading ? [element("h2", { title: tile.heading }, tile.heading)] : [];
      return element("div", { class: `board-section${tile.border ? " board-bordered" : ""}` }, ...heading);
    }
  }
}
