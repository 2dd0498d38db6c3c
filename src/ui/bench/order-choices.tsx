"use client";
import { homeOfSplit } from "@/core/project/categories";
import { homeTableOfVisual } from "@/core/project/home-table";
import { offeredColumns } from "@/core/project/offered";
import type { Order } from "@/core/project/schema";
import { directionWords, type Saying } from "@/core/view/sentence";
import { whyNot } from "@/core/view/why-not";
import { useCategoriesDialog } from "../shared/categories-store";
import { type Option, OptionList } from "../shared/option-list";

const DIRECTIONS = ["desc", "asc"] as const;

/** What rows or series can be put in order by, and in which direction; or by hand. */
export function OrderChoices({
  saying,
  field,
  label,
  palette,
  set,
  close,
}: {
  saying: Saying;
  field: "order" | "seriesOrder";
  label: string;
  palette: string;
  set: (order: Order | null) => void;
  close: () => void;
}) {
  const open = useCategoriesDialog((s) => s.open);
  const { visual, project } = saying;
  const order = visual[field];
  const split = field === "order" ? visual.split : visual.series;
  const value = project.measures.find((m) => m.id === visual.value);
  const table = homeTableOfVisual(visual, project);
  const home = homeOfSplit(project, table, split);
  const keyOf = (o: Order) => JSON.stringify([o.by, o.order]);
  const option = (by: Order["by"], direction: Order["order"], group: string, of?: string): Option => ({
    key: keyOf({ by, order: direction }),
    label: of ? `${of}, ${directionWords(by, direction)}` : directionWords(by, direction),
    group,
    why: whyNot(visual, { [field]: { by, order: direction } }, project),
    pick: () => set({ by, order: direction }),
  });
  const others = project.measures.filter((m) => m.id !== value?.id);
  const columns = offeredColumns(project, table).filter((c) => c.name !== split?.column);
  const options: Option[] = [
    ...DIRECTIONS.map((d) => option("value", d, `By ${value?.label ?? "the value"}`)),
    ...(["asc", "desc"] as const).map((d) => option("split", d, `By ${split?.column ?? "the split"}`)),
    ...(home
      ? [
          {
            key: "by hand",
            label: "in an order of my own …",
            group: `By ${split?.column}`,
            pick: () => {
              set({ by: "split", order: "asc" });
              open({ ...home, by: split?.by, palette });
            },
          },
        ]
      : []),
    ...(field === "seriesOrder"
      ? [{ key: "automatic", label: "as it comes", group: "Or", pick: () => set(null) }]
      : []),
    ...others.flatMap((m) =>
      DIRECTIONS.map((d) => option({ measure: m.id }, d, "By another measure", m.label)),
    ),
    ...columns.flatMap((c) =>
      (["asc", "desc"] as const).map((d) => option({ column: c.name }, d, "By another column", c.name)),
    ),
  ];
  return (
    <OptionList label={label} chosen={order ? keyOf(order) : "automatic"} close={close} options={options} />
  );
}
