import { element, sign } from "./elements";

/** After so long without a move the pointer goes, in milliseconds. */
const STILL = 3000;

/**
 * What a screen that only shows a board does: its pointer goes while nobody moves it, and a button, where the
 * browser can, gives the board the whole screen. `dispose` brings the pointer back.
 */
export function onScreen(root: HTMLElement): { button: HTMLElement | null; dispose: () => void } {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const rest = () => root.classList.add("board-rests");
  const move = () => {
    root.classList.remove("board-rests");
    clearTimeout(timer);
    timer = setTimeout(rest, STILL);
  };
  const button = document.fullscreenEnabled ? fullScreenButton() : null;
  root.addEventListener("pointermove", move);
  return {
    button: button?.element ?? null,
    dispose: () => {
      clearTimeout(timer);
      root.classList.remove("board-rests");
      root.removeEventListener("pointermove", move);
      button?.dispose();
    },
  };
}

function fullScreenButton() {
  const isFull = () => document.fullscreenElement !== null;
  const made = element(
    "button",
    {
      type: "button",
      class: "icon-button board-full",
      onclick: () => {
        // A browser that will not, has said so itself.
        (isFull() ? document.exitFullscreen() : document.documentElement.requestFullscreen()).catch(() => {});
      },
    },
    sign("full", 16),
  );
  const tell = () => {
    const text = isFull() ? "Leave the full screen" : "Full screen";
    made.title = text;
    made.setAttribute("aria-label", text);
  };
  tell();
  document.addEventListener("fullscreenchange", tell);
  return { element: made, dispose: () => document.removeEventListener("fullscreenchange", tell) };
}
