import { eastAsianFamilies } from "@/core/scene/families";

const EAST_ASIAN = /[\u1100-\u11ff\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff00-\uffef]|[\ud840-\ud8bf]/;
/** A page that changes is looked at so long after, in milliseconds. */
const LOOK_AFTER = 250;

/**
 * Loads the rules for the fonts of East Asian scripts once a page shows some of them: they are many, and most
 * pages need none. What stands in the page also says whose ideographs come first. Until the function that is
 * given back is called.
 */
export function watchForEastAsian(): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const look = () => {
    timer = null;
    const text = document.body.textContent ?? "";
    if (!EAST_ASIAN.test(text)) return;
    const first = eastAsianFamilies(text).map((name) => `"${name}"`);
    document.documentElement.style.setProperty("--east-asian", first.join(", "));
    if (document.getElementById("east-asian")) return;
    const link = document.createElement("link");
    Object.assign(link, { id: "east-asian", rel: "stylesheet", href: "/fonts/east-asian.css" });
    document.head.append(link);
  };
  const soon = () => {
    timer ??= setTimeout(look, LOOK_AFTER);
  };
  const observer = new MutationObserver(soon);
  observer.observe(document.body, { subtree: true, childList: true, characterData: true });
  soon();
  return () => {
    observer.disconnect();
    if (timer !== null) clearTimeout(timer);
  };
}
