import { boardAfter, WALK_SECONDS, type Walk } from "@/core/view/walk";
import { element, isSomethingOver, popoverButton, sign } from "./elements";

/** A walk through boards, and what is told of it. */
export interface Walking {
  /** All boards of the project, in their order. */
  boards: readonly { id: string; name: string }[];
  /** The walk that goes on; null where none does. */
  walk: Walk | null;
  onWalk: (walk: Walk | null) => void;
  onGo: (board: string) => void;
}

/** Goes to the next board of a walk after its time; whoever does something on the board has all of it again. */
export function startWalk(walk: Walk, now: string, onGo: (board: string) => void): () => void {
  let timer: ReturnType<typeof setTimeout>;
  const go = () => {
    // What is open, and what nobody can see, is not walked away from.
    if (!isSomethingOver() && !document.hidden) onGo(boardAfter(walk, now));
    again();
  };
  const again = () => {
    clearTimeout(timer);
    timer = setTimeout(go, walk.seconds * 1000);
  };
  const told = ["pointerdown", "keydown", "wheel"] as const;
  for (const name of told) document.addEventListener(name, again, { passive: true });
  again();
  return () => {
    clearTimeout(timer);
    for (const name of told) document.removeEventListener(name, again);
  };
}

/** A button that opens what a walk is made of: the boards, how long each is shown, and its start and end. */
export function walkButton(now: string, { boards, walk, onWalk }: Walking): HTMLElement[] {
  const { least, most, usual } = WALK_SECONDS;
  const { button, list } = popoverButton(
    "Walk through boards",
    {
      class: "icon-button board-walk",
      "aria-label": walk ? "Walking through boards" : "Walk through boards",
      title: walk ? `Walking: each board for ${walk.seconds} seconds` : "Walk through boards",
      "aria-pressed": String(walk !== null),
    },
    () => {
      const boxes = boards.map(({ id, name }) => {
        const isOn = walk ? walk.boards.includes(id) : true;
        const box = element("input", { type: "checkbox", value: id });
        box.checked = isOn;
        return { box, row: element("label", {}, box, element("span", {}, name)) };
      });
      const seconds = element("input", {
        type: "number",
        class: "walk-seconds",
        min: least,
        max: most,
        step: 1,
        value: walk?.seconds ?? usual,
        "aria-label": "Seconds for each board",
      });
      const problem = element("p", { role: "alert", class: "walk-problem" });
      const begin = () => {
        const chosen = boxes.filter(({ box }) => box.checked).map(({ box }) => box.value);
        const each = Number(seconds.value);
        if (chosen.length < 2) problem.textContent = "Choose two boards or more.";
        else if (!Number.isInteger(each) || each < least || each > most)
          problem.textContent = `Each board is shown for ${least} to ${most} seconds.`;
        else {
          list.hidePopover();
          onWalk({ boards: chosen, seconds: each });
        }
      };
      const end = () => {
        list.hidePopover();
        onWalk(null);
      };
      const act = (text: string, onclick: () => void) =>
        element("button", { type: "button", class: "board-button", onclick }, text);
      return [
        ...boxes.map(({ row }) => row),
        element("label", {}, "Each for", seconds, "seconds"),
        problem,
        element(
          "div",
          { class: "walk-acts" },
          act(walk ? "Walk so" : "Start the walk", begin),
          ...(walk ? [act(`Stay on ${boards.find((b) => b.id === now)?.name ?? "this board"}`, end)] : []),
        ),
      ];
    },
  );
  button.append(sign("walk", 16));
  return [button, list];
}
