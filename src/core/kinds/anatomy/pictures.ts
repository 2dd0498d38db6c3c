import { own } from "../../base/own";
import { pictureKey } from "../../rows/picture-key";
import type { VisualRow } from "../../rows/visual-data";
import { ICONS } from "../../scene/icons";
import type { Icon, Picture } from "../../scene/marks";
import type { SceneInput } from "./kind";

type PictureInput = Pick<SceneInput, "look">;
type Pictured = Pick<VisualRow, "key" | "label">;

/** The picture that was given to a row; undefined where it has none. */
export const pictureOf = ({ look }: PictureInput, row: Pictured): string | undefined =>
  own(look.pictures, pictureKey(row));

/** Where a picture stands: its middle, the side of its square in pixels, and the ink of an icon. */
interface PicturePlace {
  id: string;
  part: string;
  x: number;
  y: number;
  size: number;
  ink: string;
  opacity?: number;
}

/** A row's picture: an icon in strokes, or the uploaded one; null where it has none, or it is gone. */
export function pictureMark(input: PictureInput, row: Pictured, place: PicturePlace): Icon | Picture | null {
  const name = pictureOf(input, row);
  if (!name) return null;
  const { id, part, size, ink, opacity = 1 } = place;
  const base = { id, part, x: place.x - size / 2, y: place.y - size / 2, opacity };
  if (name.startsWith("icon:")) {
    const d = own(ICONS, name.slice(5));
    const strokeWidth = Math.max(1, size / 13);
    return d ? { type: "icon", ...base, size, box: 24, d, stroke: ink, strokeWidth } : null;
  }
  const uploaded = input.look.ownPictures.find((p) => p.id === name);
  return uploaded ? { type: "picture", ...base, width: size, height: size, href: uploaded.href } : null;
}
