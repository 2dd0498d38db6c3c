import { formatNumber } from "../base/number-format";
import { withDigits, writtenAlike } from "../rows/digits";
import { sceneInput, sceneOf } from "../view/picture";
import { type DrawnFacts, type ReviewRule, turn } from "./finding";

/** Whether somebody fixed how many decimals a visual's own measure has in it. */
const areFixed = ({ style, measure }: DrawnFacts): boolean => {
  const said = style.value("figures.decimals");
  return said === "measure" ? measure.format.decimals !== "automatic" : said !== "automatic";
};

/** The number that a picture writes for two values whose shapes can be told apart; null where it writes none so. */
function alikeIn({ visual, data, design }: DrawnFacts): string | null {
  const { format, rows } = sceneInput(visual, data, design).data;
  const extent = Math.max(visual.size.width, visual.size.height);
  const values = rows.flatMap((r) => (r.format || r.value === null ? [] : r.value));
  if (!writtenAlike(values, format, extent)) return null;
  const told = withDigits({ ...format, decimals: "automatic" }, values, extent);
  if (writtenAlike(values, told, extent)) return null;
  const written = sceneOf(visual, data, design).marks.flatMap((m) =>
    m.type === "text" && (m.part === "labels" || m.part === "legend") ? [m.text] : [],
  );
  const texts = [...new Set(values.map((value) => formatNumber(value, format)))];
  const alike = texts.filter((text) => {
    const same = values.filter((value) => formatNumber(value, format) === text);
    return same.length > 1 && writtenAlike([...same, Math.max(...values.map(Math.abs))], format, extent);
  });
  return alike.find((text) => written.filter((one) => one.includes(text)).length > 1) ?? null;
}

/** Values that are drawn apart and written alike, since their decimals were fixed. */
export const numbersAlike: ReviewRule = {
  id: "numbers alike",
  look: (facts) => {
    if (facts.data.rows.length < 2 || !areFixed(facts)) return null;
    const alike = alikeIn(facts);
    if (alike === null) return null;
    return {
      text: `Values that are drawn apart are all written ${alike}.`,
      why: "The number of decimals is fixed, so that nothing tells them apart.",
      mend: turn("Write as many as tell them apart", facts, "figures.decimals", "automatic"),
    };
  },
};
