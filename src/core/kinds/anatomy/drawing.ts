import type { Handle, Mark, Scene } from "../../scene/marks";
import { blankScene, frameScene, UNNAMED, unnamedText } from "./frame";
import type { SharedInput } from "./shared-parts";
import { unnamedIn } from "./unnamed";

/** The four steps of a drawing; `Laid` is what the first finds out for the others. */
interface Steps<Input extends SharedInput, Laid> {
  /** The scene of a visual that lacks what this kind draws; null where it has it. */
  blank?: (input: Input) => Scene | null;
  /** Whether names are expected to be missing: then there is room to count them from the first. */
  crowded?: (input: Input) => boolean;
  /** How many names have no room; by default those of rows and of series. */
  nameless?: (input: Input, laid: Laid, marks: Mark[]) => number;
  /** What is drawn, and where it stands: all that the other steps go by. */
  lay: (input: Input) => Laid;
  /** The marks, from the back to the front. */
  draw: (input: Input, laid: Laid) => Mark[];
  /** The points that change a dial where they are dragged. */
  handles: (input: Input, laid: Laid) => Handle[];
  /** The picture in words, with all that it leaves out. */
  say: (input: Input, laid: Laid) => string;
}

/** Whether there are more rows than are all named, as a rule. */
const isCrowd = ({ data }: SharedInput): boolean => data.rows.length > 24;

/** The marks with the number of names that are missing at the foot; without that line where none is. */
const counted = (input: SharedInput, marks: Mark[], missing: number): Mark[] =>
  marks.flatMap((mark) => {
    if (mark.id !== UNNAMED || mark.type !== "text") return [mark];
    return missing > 0 ? [{ ...mark, text: unnamedText(input, missing) }] : [];
  });

/**
 * How a kind draws: laid out once, then drawn, handled and said from that. What has no name then is
 * counted at the foot; where room was kept for that and none is missing, or the other way round, all is
 * laid out again.
 */
export const drawing =
  <Input extends SharedInput, Laid>({
    blank = blankScene,
    crowded = isCrowd,
    nameless = (input, _, marks) => unnamedIn(input, marks),
    lay,
    draw,
    handles,
    say,
  }: Steps<Input, Laid>) =>
  (input: Input): Scene => {
    const nothing = blank(input);
    if (nothing) return nothing;
    const drawn = (countsNames: boolean) => {
      const now = { ...input, countsNames };
      const laid = lay(now);
      const marks = draw(now, laid);
      return { now, laid, marks, missing: nameless(now, laid, marks) };
    };
    const isExpected = crowded(input);
    const first = drawn(isExpected);
    let best = first;
    if (first.missing > 0 !== isExpected) {
      const second = drawn(!isExpected);
      // Without the line a name more may be missing, which then nobody counts.
      if (second.missing === 0 || second.now.countsNames) best = second;
    }
    const { now, laid, marks, missing } = best;
    return frameScene(now, counted(now, marks, missing), handles(now, laid), say(now, laid));
  };
