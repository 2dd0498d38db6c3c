import type { Handle, Mark, Scene } from "../../scene/marks";
import { blankScene, frameScene } from "./frame";
import type { SharedInput } from "./shared-parts";

/** The four steps of a drawing; `Laid` is what the first finds out for the others. */
interface Steps<Input extends SharedInput, Laid> {
  /** The scene of a visual that lacks what this kind draws; null where it has it. */
  blank?: (input: Input) => Scene | null;
  /** What is drawn, and where it stands: all that the other steps go by. */
  lay: (input: Input) => Laid;
  /** The marks, from the back to the front. */
  draw: (input: Input, laid: Laid) => Mark[];
  /** The points that change a dial where they are dragged. */
  handles: (input: Input, laid: Laid) => Handle[];
  /** The picture in words, with all that it leaves out. */
  say: (input: Input, laid: Laid) => string;
}

/** How a kind draws: laid out once, then drawn, handled and said from that. */
export const drawing =
  <Input extends SharedInput, Laid>({ blank = blankScene, lay, draw, handles, say }: Steps<Input, Laid>) =>
  (input: Input): Scene => {
    const nothing = blank(input);
    if (nothing) return nothing;
    const laid = lay(input);
    return frameScene(input, draw(input, laid), handles(input, laid), say(input, laid));
  };
