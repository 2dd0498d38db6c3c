import type { VisualData } from "../../core/rows/visual-data";
import type { Scene } from "../../core/scene/marks";

/** Frames of this height have room to count the names that are missing. */
const COUNTED_FROM = 110;

const isSame = (text: string, label: string) =>
  text === label || (text.startsWith(label) && !/^[\p{L}\p{N}]/u.test(text.slice(label.length)));
/** Whether a text is a name that was cut, or its first line. */
function isCut(text: string, label: string): boolean {
  const stem = text.replace(/…[\s\S]*$/, "").trim();
  return stem.length > 0 && label.startsWith(stem);
}

/** The names that no text says; each text says one of them. */
function unsaid<T extends { label: string }>(wanted: T[], texts: string[]): T[] {
  const free = [...texts];
  const take = (fits: (text: string, label: string) => boolean) => (one: T) => {
    const at = free.findIndex((text) => fits(text, one.label));
    if (at >= 0) free.splice(at, 1);
    return at < 0;
  };
  // "From the outside in: A, B, C. …" names all of them, on one line or on two.
  const joined = texts.join(" ");
  const listed = ({ label }: T) =>
    !["", ",", "."].some(
      (end) => joined.includes(`, ${label}${end || " "}`) || joined.includes(`: ${label}${end}`),
    );
  return wanted.filter(take(isSame)).filter(listed).filter(take(isCut));
}

/**
 * What is wrong with the names of a picture: categories that have a mark and no name, where the foot does not
 * count them; or a count that is none. One label among silent peers is counted too.
 */
export function misnamed(data: VisualData, scene: Scene): string[] {
  if (scene.height < COUNTED_FROM || (data.rows.length <= 1 && data.splitLabel === null)) return [];
  const texts = scene.marks.flatMap((m) => (m.type === "text" && m.part !== "heading" ? [m.text] : []));
  const shown = scene.marks.flatMap((m) => (m.shows ? [m.shows] : []));
  const drawn = [
    ...data.rows.filter((r) => shown.some((s) => s.row === r.key)),
    ...data.series.filter((r) => shown.some((s) => s.series === r.key)),
  ];
  const unnamed = unsaid<{ label: string }>(drawn, texts);
  const said = texts.flatMap((t) => /^(\d+) without names$/.exec(t)?.[1] ?? [])[0] ?? "0";
  return unnamed.length === Number(said)
    ? []
    : [
        `${unnamed.map((one) => one.label).slice(0, 3)} without names (${unnamed.length}), of which the foot counts ${said}`,
      ];
}
