import { type RowKey, subjectOf } from "@/core/rows/row-key";
import type { Mark, SeriesKey } from "@/core/scene/marks";

type Attributes = Record<string, string | number>;

/** A name that is an id in XML, in CSS and in an address: letters, digits and hyphens. */
const plain = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");

/** What a row stands for: its category as text, and what it is where it is no category. */
function rowNames(key: RowKey): Attributes {
  const subject = subjectOf(key);
  if (subject.type === "category") return { "data-row": String(subject.value ?? "") };
  return subject.type === "measure" ? { "data-measure": subject.id } : { "data-row-is": subject.type };
}

/** The second split, or the further measure, that a mark belongs to. */
function seriesNames(key: SeriesKey | undefined): Attributes {
  if (key === undefined) return {};
  if (key === "outer" || key === "inner") return { "data-series": key };
  const subject = subjectOf(key as RowKey);
  const name =
    subject.type === "category" ? subject.value : subject.type === "measure" ? subject.id : subject.type;
  return { "data-series": String(name ?? "") };
}

/** Names for the marks of a picture that leaves, so that a page can style, find and read them. */
export class MarkNames {
  private readonly taken = new Map<string, number>();
  constructor(private readonly prefix: string) {}

  /** The id that a mark has, no second time in this picture. */
  private idOf(mark: Mark): string {
    const stem = plain(mark.id) || plain(mark.part) || "mark";
    const before = this.taken.get(stem) ?? 0;
    this.taken.set(stem, before + 1);
    return before === 0 ? `${this.prefix}-${stem}` : `${this.prefix}-${stem}--${before + 1}`;
  }

  /** Id, part, and for what shows a value: its row, series and value, as full as it was computed. */
  of(mark: Mark): Attributes {
    const { shows, part } = mark;
    return {
      id: this.idOf(mark),
      class: plain(part) || "mark",
      ...(shows
        ? {
            ...rowNames(shows.row),
            ...seriesNames(shows.series),
            "data-value": shows.value,
          }
        : {}),
    };
  }
}
