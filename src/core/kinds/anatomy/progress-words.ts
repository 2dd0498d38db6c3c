import { formatNumber } from "../../base/number-format";
import { leadingRows } from "./datum";
import { chosenEnd, type Goals, goalFor, shareOfGoal, shareText } from "./goal";
import type { SharedInput } from "./shared-parts";
import { measuresNamed, titleOf } from "./titles";

/** Progress in words: what of, against which target, the first rows with their shares, and how many are past. */
export function progressWords(input: SharedInput, goal: Goals, kind: string): string {
  const { data } = input;
  const one = goal.isTarget ? ` against ${formatNumber(goal.full, data.format)}` : "";
  const against = goal.each ? ` against ${data.own.target}` : one;
  const said = leadingRows(input, (row) => {
    const { value, format = data.format } = row;
    const own = goalFor(data, goal, row);
    const share = shareOfGoal(own, value);
    const target = goal.each && own.isTarget ? ` of ${formatNumber(own.full, format)}` : "";
    const ofIt = share === null ? "" : ` (${shareText(share, format)})`;
    const none = goal.each && own.missing ? `, ${own.missing}` : "";
    return formatNumber(value, format) + target + ofIt + none;
  });
  const over = data.rows.filter((r) => {
    const { whole } = goalFor(data, goal, r);
    return whole !== null && (r.value ?? 0) > whole;
  }).length;
  const past = over ? `, ${data.rows.length > 1 ? `${over} ` : ""}${data.words.pastGoal}` : "";
  const end = goal.missing || chosenEnd(data, goal);
  return `${titleOf(input)}: ${kind} of ${measuresNamed(data)}${against}, ${said}${past}${end ? `. ${end}` : ""}.`;
}
