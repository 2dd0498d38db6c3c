import { element } from "./elements";
import type { FilterView, FilterWishes } from "./filter-view";

/** So long somebody types before it is looked for, in milliseconds. */
const TYPED = 300;

/** A filter by a text that is contained. */
export function textView({ control, set }: FilterWishes): FilterView {
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Whether something was typed that is not looked for yet: then the field is ahead of the board. */
  let isTyped = false;
  const field = element("input", {
    type: "search",
    class: "field",
    maxlength: 200,
    placeholder: "any text",
    "aria-label": `${control.label} contains`,
    oninput: () => {
      clearTimeout(timer);
      isTyped = true;
      timer = setTimeout(() => {
        isTyped = false;
        set({ contains: field.value });
      }, TYPED);
    },
  });
  return {
    root: field,
    show(setting) {
      if (isTyped || !("contains" in setting) || field.value === setting.contains) return;
      field.value = setting.contains;
    },
  };
}
