import type { ReviewRule } from "./finding";
import { type MeasureDoubt, measureDoubts } from "./measure-doubts";

/** A doubt about the measure of a visual, as a finding at it. */
const doubtOf = (id: MeasureDoubt["id"]): ReviewRule => ({
  id,
  look: ({ measure, project, data }) => {
    const doubt = measureDoubts(measure, project, data.total).find((d) => d.id === id);
    return doubt
      ? { text: doubt.text, why: doubt.why, measure, ...(doubt.mend ? { mend: doubt.mend } : {}) }
      : null;
  },
});

/** A sum of shares, which grows with the number of rows. */
export const summedShare = doubtOf("summed share");
/** A percent that is written a hundred times too large. */
export const hundredfoldPercent = doubtOf("hundredfold percent");
