import "./cavlo-board";
import { places } from "./places";

// All in one script: for a file that works alone, in which nothing can be fetched. The file says
// where it holds
// what else there is; as a worker the same script is the engine.
export { answerEngine } from "./engine";

/** What a file that works alone holds besides this script. */
interface Alone {
  /** Fonts by the names of their files, as base64. */
  fonts: Record<string, string>;
  /** The address of the library of regular expressions, where the file has it. */
  patterns: string;
}

const { cavloAlone } = globalThis as { cavloAlone?: Alone };
places.engine = () => import.meta.url;
places.patterns = () => cavloAlone?.patterns ?? "";
places.font = (file) => {
  const name = file.replace(/\.woff2$/, "");
  const held = cavloAlone && Object.hasOwn(cavloAlone.fonts, name) ? cavloAlone.fonts[name] : "";
  return `data:font/woff2;base64,${held}`;
};
