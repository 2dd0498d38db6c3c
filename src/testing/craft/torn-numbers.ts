import type { Scene } from "../../core/scene/marks";

/** A number with its separators that an ellipsis follows at once, or after the space before its unit. */
const CUT = /\d[\d.,\u2009\u202f\u00a0]*[\u2009\u202f\u00a0]?…/u;
/** What stands after a number, at the beginning of a line: its percent sign, its unit, its next digits. */
const TORN = /^(%|k|M|bn|min)($|\s|·)/u;

/** Names that have digits of their own: an ellipsis after those is no cut. */
const isName = (id: string) => id.startsWith("name") || id.startsWith("legend") || id.startsWith("title");

/** The numbers of a scene that are cut by an ellipsis, or that a line tears from their unit. */
export const tornNumbers = ({ marks }: Scene): string[] =>
  marks.flatMap((m) => {
    if (m.type !== "text") return [];
    if (TORN.test(m.text)) return [`${m.id} begins with what belongs to a number: “${m.text}”`];
    return !isName(m.id) && CUT.test(m.text) ? [`${m.id} cuts a number: “${m.text}”`] : [];
  });
