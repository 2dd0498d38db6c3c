import { shortFormats } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, shorten, textWidth } from "../../scene/text";
import { beyondGoal, type Goal, shareFormat, shareOfGoal, textAgainst } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { textMark } from "../anatomy/text-mark";
import type { ProgressBarPart } from "./parts";

type Input = SceneInput<ProgressBarPart>;

/** What a reading's names stand for, in its own format and then shortened. */
function namesOf({ data }: Input, goal: Goal, value: number) {
  const share = shareOfGoal(goal, value);
  const names = {
    ...data.names,
    share: { value: share, format: shareFormat(share, data.format) },
    target: { value: goal.whole, format: data.format },
  };
  const shortened = shortFormats(data.format).map((format) => ({
    ...names,
    value: { value, format },
    target: { value: goal.whole, format },
  }));
  return [names, ...shortened];
}

/** The line beside the reading: what lies past the goal, and the caption as far as it fits. */
function captionOf(input: Input, goal: Goal, value: number, room: number, size: number): string {
  const template = input.style.template("reading.caption");
  const isTold = goal.isTarget || !template.includes("{target}");
  const captions = isTold
    ? namesOf(input, goal, value)
        .slice(0, 2)
        .map((n) => fillTemplate(template, n))
    : [goal.missing];
  const past = beyondGoal(input.data, value, goal.whole);
  const said = captions.map((c) => [past, c].filter(Boolean).join(" · "));
  const fitting = said.find((c) => textWidth(c, size, 400) <= room);
  if (fitting !== undefined) return fitting;
  const last = past || captions[captions.length - 1];
  return /\d/.test(last) ? "" : shorten(last, room, size, 400);
}

/** The reading above a bar with its caption, from a top edge at a size. */
export function readingMarks(input: Input, goal: Goal, value: number, body: Box, wanted: number): Mark[] {
  const { style, theme } = input;
  const text = textAgainst(style.template("reading.text"), goal);
  const texts = namesOf(input, goal, value).map((n) => fillTemplate(text, n));
  const main = fitText(texts, body.width, wanted, 600);
  const y = body.y + (wanted * LINE_HEIGHT) / 2;
  const reading = textMark("reading", "reading", { x: body.x, y, ...main, weight: 600, fill: theme.ink });
  const size = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
  const left = body.x + textWidth(main.text, main.size, 600) + 10;
  const caption = captionOf(input, goal, value, body.x + body.width - left, size);
  if (!caption) return [reading];
  const under = y + main.size * 0.5 - size * 0.55;
  const fill = beyondGoal(input.data, value, goal.whole) ? theme.signal : theme.muted;
  return [
    reading,
    textMark("caption", "reading", { x: left, y: under, text: caption, size, weight: 400, fill }),
  ];
}
