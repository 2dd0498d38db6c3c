import type { Relative } from "@/core/plan/query";
import type { Setting } from "@/core/project/schema";
import { keepsAll } from "@/core/view/settings";
import { SPANS, spanText } from "@/core/view/spans";
import { element, freshName, popoverButton } from "./elements";
import type { FilterView, FilterWishes } from "./filter-view";

/** A setting of dates in words. */
function settingText(setting: Setting): string {
  if (keepsAll(setting)) return "All";
  if ("relative" in setting) return spanText(setting.relative);
  if (!("from" in setting)) return "All";
  const { from, to } = setting;
  if (from === null) return `up to ${to}`;
  return to === null ? `from ${from}` : `${from} – ${to}`;
}

/** A filter of dates: a stretch in relative words, or from one day to another. */
export function datesView({ control, set }: FilterWishes): FilterView {
  let now: Setting = { from: null, to: null };
  const anchorNow = (): Relative["anchor"] => ("relative" in now ? now.relative.anchor : "newest");
  const write = (): Node[] => {
    const group = freshName("span");
    const radio = (text: string, checked: boolean, onchange: () => void) => {
      const box = element("input", { type: "radio", name: group, onchange });
      box.checked = checked;
      return element("label", {}, box, element("span", {}, text));
    };
    const anchor = element("input", {
      type: "checkbox",
      onchange: () => {
        if ("relative" in now)
          set({ relative: { ...now.relative, anchor: anchor.checked ? "newest" : "today" } });
      },
    });
    anchor.checked = anchorNow() === "newest";
    const span = (of: (typeof SPANS)[number]) => {
      const isOn =
        "relative" in now &&
        now.relative.unit === of.unit &&
        now.relative.from === of.from &&
        now.relative.to === of.to;
      return radio(spanText({ ...of, anchor: "today" }), isOn, () =>
        set({ relative: { ...of, anchor: anchor.checked ? "newest" : "today" } }),
      );
    };
    const day = (end: "from" | "to") => {
      const field = element("input", {
        type: "date",
        class: "field",
        "aria-label": `${control.label} ${end}`,
        onchange: () => {
          const known = "from" in now ? now : { from: null, to: null };
          set({ ...known, [end]: field.value || null });
          for (const box of list.querySelectorAll<HTMLInputElement>("[type=radio]")) box.checked = false;
        },
      });
      field.value = "from" in now && typeof now[end] === "string" ? String(now[end]).slice(0, 10) : "";
      return field;
    };
    return [
      element(
        "div",
        { class: "dates-spans", role: "radiogroup", "aria-label": `${control.label}, a stretch of time` },
        radio("all of them", keepsAll(now), () => set({ from: null, to: null })),
        ...SPANS.map(span),
      ),
      element("label", { class: "dates-anchor" }, anchor, element("span", {}, "counted from the newest row")),
      element("div", { class: "dates-days" }, day("from"), element("span", {}, "to"), day("to")),
    ];
  };
  const { button, list } = popoverButton(
    control.label,
    { class: "board-opens", "aria-label": control.label },
    write,
  );
  return {
    root: element("div", { class: "board-opener" }, button, list),
    show(setting) {
      now = setting;
      const text = settingText(setting);
      button.textContent = text;
      button.title = text;
      button.setAttribute("aria-label", `${control.label}: ${text}`);
    },
  };
}
