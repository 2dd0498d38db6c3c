import { focusedBeside } from "@/render/roots";
import { element } from "./elements";
import type { FilterView, FilterWishes } from "./filter-view";

/** So long somebody types before it is looked for, in milliseconds. */
const TYPED = 300;

/** A filter by a text that is contained. */
export function textView({ control, set }: FilterWishes): FilterView {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const field = element("input", {
    type: "search",
    class: "field",
    maxlength: 200,
    placeholder: "any text",
    "aria-label": `${control.label} contains`,
    oninput: () => {
      clearTimeout(timer);
      timer = setTimeout(() => set({ contains: field.value }), TYPED);
    },
  });
  return {
    root: field,
    show(setting) {
      if (focusedBeside(field) !== field && "contains" in setting) field.value = setting.contains;
    },
  };
}
