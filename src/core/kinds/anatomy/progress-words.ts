import { formatNumber } from "../../base/number-format";
import { leadingRows } from "./datum";
import { titleOf } from "./frame";
import { chosenEnd, type Goal, shareOfGoal, shareText } from "./goal";
import type { SharedInput } from "./shared-parts";

/** Progress in words: what of, against which target, the first rows with their shares, and how many are past. */
export function progressWords(input: SharedInput, goal: Goal, kind: string): string {
  const { data } = input;
  const against = goal.isTarget ? ` against ${formatNumber(goal.full, data.format)}` : "";
  const said = leadingRows(input, ({ value, format }) => {
    const share = shareOfGoal(goal, value);
    return formatNumber(value, format ?? data.format) + (share === null ? "" : ` (${shareText(share)})`);
  });
  const over = goal.whole === null ? 0 : data.rows.filter((r) => (r.value ?? 0) > goal.full).length;
  const past = over ? `, ${data.rows.length > 1 ? `${over} ` : ""}${data.words.pastGoal}` : "";
  const end = goal.missing || chosenEnd(data, goal);
  return `${titleOf(input)}: ${kind} of ${data.valueLabel}${against}, ${said}${past}${end ? `. ${end}` : ""}.`;
}
