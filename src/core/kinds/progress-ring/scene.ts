import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Scene } from "../../scene/marks";
import { SMALLEST, shorten } from "../../scene/text";
import { arcExtent } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { leadingRows } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import { beyondGoal, goalOf, shareFormat } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { shareText } from "../anatomy/labels";
import { doNotFit } from "../anatomy/more";
import { progressArcs } from "../anatomy/progress-arcs";
import { layCentre, layRings, ringHandles } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import type { ProgressRingPart } from "./parts";

type Input = SceneInput<ProgressRingPart>;

/** More rings than this cannot be told apart. */
const MOST_RINGS = 8;

/** A ring that fills towards a goal; several rows or measures give rings within each other. */
export function progressRingScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const past = style.choice("ring.past");
  const goal = goalOf(input, past);
  const colours = new Colours(input);
  const fitting = Math.max(1, Math.min(MOST_RINGS, Math.floor(Math.min(whole.width, whole.height) / 14)));
  const rows = data.rows.slice(0, fitting);
  const noted = footNote(whole, theme, doNotFit(data.rows.length - rows.length));
  const body = noted.body;
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const centre = layCentre(body, start, sweep, 2, 2);
  const { cx, cy, r } = centre;
  const several = rows.length > 1;
  const rings = layRings(
    r,
    rows.length,
    Math.min(style.number("ring.thickness"), r * (r < 44 ? 0.26 : 0.5)),
    style.number("ring.gap"),
    several ? 0.3 : 0.4,
  );
  const write = (n: number) => formatNumber(n, data.format);
  marks.push(...progressArcs(input, rows, rings, centre, goal, colours));
  // Names stand in the opening of the rings, at their start, where the sweep leaves one.
  const pitch = several ? rings[0].outer - rings[1].outer : 0;
  const size = Math.min(style.number("labels.size"), pitch * 0.98);
  if (several && style.toggle("labels.names") && size >= SMALLEST && sweep <= 300 && start === 0)
    for (const [i, row] of rows.entries()) {
      const y = cy - (rings[i].inner + rings[i].outer) / 2;
      const room = cx - body.x - 6;
      const text = shorten(row.label, Math.min(room, r * 0.9), size, 500);
      if (text)
        marks.push(
          textMark(`name:${row.key}`, "labels", {
            x: cx - 6,
            y,
            text,
            size,
            weight: 500,
            fill: theme.ink,
            align: "end",
          }),
        );
    }
  const focused = rows.find((row) => row.key === input.focus);
  const shown = focused ?? (several ? null : rows[0]);
  const value = shown ? shown.value : data.total;
  const inner = rings[rings.length - 1].inner;
  const share = value === null ? null : value / goal.full;
  const state = beyondGoal(value, goal.full);
  const format = shown?.format ?? data.format;
  const names = namesFor(input, {
    value: { value, format },
    total: { value, format },
    target: { value: goal.full, format },
  }).map((n) => ({
    ...n,
    share: { value: share, format: shareFormat(share) },
    category: shown?.label ?? "",
  }));
  const caption =
    focused && several
      ? focused.label
      : state ||
        (goal.isTarget || !style.template("reading.caption").includes("{target}")
          ? fillTemplate(style.template("reading.caption"), names[0])
          : data.valueLabel);
  const extent = arcExtent(start, sweep);
  const lift = extent.bottom < 0.35 ? -1 : extent.top < 0.35 ? 1 : 0;
  marks.push(...noted.marks);
  // Several rings have no one share: only the ring under the pointer has its own.
  if (!several || focused)
    marks.push(
      ...roundReading(
        input,
        { x: cx, y: cy, room: inner, within: body },
        names,
        caption,
        lift,
        state ? theme.signal : undefined,
      ),
    );
  const over = data.rows.filter((row) => (row.value ?? 0) > goal.full).length;
  const against = goal.isTarget ? ` against ${write(goal.full)}` : "";
  const beyond = over ? `, ${data.rows.length > 1 ? `${over} ` : ""}past the goal` : "";
  const said = leadingRows(input, (row) => {
    const share = row.value === null ? "" : ` (${shareText(row.value / goal.full)})`;
    return formatNumber(row.value, row.format ?? data.format) + share;
  });
  const description = `${titleOf(input)}: progress ring of ${data.valueLabel}${against}, ${said}${beyond}.`;
  return frameScene(input, marks, ringHandles(input, centre, rings[0].inner), description);
}
