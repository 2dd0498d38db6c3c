import { fillTemplate } from "../../base/template";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { fitText, SMALLEST, textWidth } from "../../scene/text";
import type { SceneInput } from "../anatomy/kind";
import { textMark } from "../anatomy/text-mark";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** A plate at the foot with the name of what is measured. Takes its room from the body. */
export function plateMarks(input: Input, body: Box): { marks: Mark[]; body: Box } {
  const { style, theme, data } = input;
  const text = style.toggle("plate.shown")
    ? fillTemplate(style.template("plate.text"), data.names).trim()
    : "";
  if (!text || body.height < 120) return { marks: [], body };
  const size = Math.max(SMALLEST, Math.min(13, body.height * 0.06));
  const said = fitText([text], body.width - 28, size, 600);
  const width = textWidth(said.text, said.size, 600) + 24;
  const height = said.size * 2;
  const y = body.y + body.height - height;
  return {
    marks: [
      {
        type: "rect",
        id: "plate",
        part: "plate",
        x: body.x + (body.width - width) / 2,
        y,
        width,
        height,
        radii: [height / 2, height / 2, height / 2, height / 2],
        fill: mix(theme.track, theme.sheet, 0.35),
      },
      textMark("platetext", "plate", {
        x: body.x + body.width / 2,
        y: y + height / 2,
        text: said.text,
        size: said.size,
        weight: 600,
        fill: theme.ink,
        align: "middle",
      }),
    ],
    body: { ...body, height: body.height - height - 8 },
  };
}
