import { todayIn } from "@/core/base/today";
import type { Relative } from "@/core/plan/query";
import type { Setting } from "@/core/project/schema";
import { extentQuery } from "@/core/view/column-extent";
import { type FilterOfBoard, keepsAll } from "@/core/view/settings";
import { newestIn, type Span, spanDates, spansFrom, spanText } from "@/core/view/spans";
import { element, freshName, popoverButton } from "./elements";
import type { FilterGround, FilterView, FilterWishes } from "./filter-view";

/** A day, or a moment of one to the minute. */
const momentText = (moment: unknown) => String(moment).slice(0, 16).replace("T", " ");

/** The day that a stretch is counted from; null while the newest row is not known. */
function anchorOf({ anchor }: Relative, control: FilterOfBoard, { project, later }: FilterGround) {
  return anchor === "newest" ? newestIn(later(extentQuery(control))) : todayIn(project.conventions.timeZone);
}

/** A setting of dates in words; a stretch that is counted from a day says which dates that makes it. */
function settingText(setting: Setting, control: FilterOfBoard, ground: FilterGround): string {
  if (keepsAll(setting)) return "All";
  if ("relative" in setting) {
    const { relative } = setting;
    const day = anchorOf(relative, control, ground);
    const dates = day === null ? "" : spanDates(relative, day, ground.project);
    // What it holds comes first: a narrow control cuts what follows.
    return [dates, spanText(relative)].filter(Boolean).join(": ");
  }
  if (!("from" in setting)) return "All";
  const { from, to } = setting;
  if (from === null) return `up to ${momentText(to)}`;
  return to === null ? `from ${momentText(from)}` : `${momentText(from)} – ${momentText(to)}`;
}

/** One end of a stretch of time: a day, and of timestamps a time of that day, where one is set. */
function endFields(
  label: string,
  now: unknown,
  hasTimes: boolean,
  isEnd: boolean,
  set: (moment: string | null) => void,
) {
  const moment = typeof now === "string" ? now : "";
  const tell = () => {
    if (!day.value) return set(null);
    // A minute is meant with all of its seconds.
    set(time.value ? `${day.value}T${time.value}${isEnd ? ":59.999" : ""}` : day.value);
  };
  const field = (type: "date" | "time", name: string) =>
    element("input", { type, class: "field", "aria-label": name, onchange: tell });
  const day = field("date", label);
  const time = field("time", `${label}, time`);
  day.value = moment.slice(0, 10);
  time.value = moment.slice(11, 16);
  return hasTimes ? [day, time] : [day];
}

/**
 * A filter of dates: a stretch in relative words, or from one day to another; of timestamps also from one
 * time to another.
 */
export function datesView({ control, set }: FilterWishes, hasTimes: boolean): FilterView {
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
    const span = (of: Span) => {
      const isOn =
        "relative" in now &&
        now.relative.unit === of.unit &&
        now.relative.from === of.from &&
        now.relative.to === of.to;
      return radio(spanText({ ...of, anchor: anchorNow() }), isOn, () =>
        set({ relative: { ...of, anchor: anchor.checked ? "newest" : "today" } }),
      );
    };
    const end = (name: "from" | "to") =>
      endFields(
        `${control.label} ${name}`,
        "from" in now ? now[name] : null,
        hasTimes,
        name === "to",
        (moment) => {
          const known = "from" in now ? now : { from: null, to: null };
          set({ ...known, [name]: moment });
          for (const box of list.querySelectorAll<HTMLInputElement>("[type=radio]")) box.checked = false;
        },
      );
    return [
      element(
        "div",
        { class: "dates-spans", role: "radiogroup", "aria-label": `${control.label}, a stretch of time` },
        radio("all of them", keepsAll(now), () => set({ from: null, to: null })),
        ...spansFrom(anchorNow()).map(span),
      ),
      element("label", { class: "dates-anchor" }, anchor, element("span", {}, "counted from the newest row")),
      element("div", { class: "dates-days" }, ...end("from"), element("span", {}, "to"), ...end("to")),
    ];
  };
  const { button, list } = popoverButton(
    control.label,
    { class: "board-opens", "aria-label": control.label },
    write,
  );
  return {
    root: element("div", { class: "board-opener" }, button, list),
    show(setting, ground) {
      now = setting;
      const text = settingText(setting, control, ground);
      button.textContent = text;
      button.title = text;
      button.setAttribute("aria-label", `${control.label}: ${text}`);
    },
  };
}
