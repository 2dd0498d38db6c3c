"use client";
import type { NumberFormat } from "@/core/base/number-format";
import { PERCENT_FORMAT, PLAIN_FORMAT } from "@/core/base/number-format";
import { KINDS } from "@/core/kinds";
import { areShares } from "@/core/kinds/gauge/zones";
import { homeTableOf, homeTableOfVisual } from "@/core/project/home-table";
import { offeredColumns } from "@/core/project/offered";
import type { Visual } from "@/core/project/schema";
import { orderAfter } from "@/core/project/split-change";
import { type OfferedSplit, offeredSplits } from "@/core/view/offered-splits";
import { filterColumns, type PhraseToken, type Saying } from "@/core/view/sentence";
import { hasRows } from "@/core/view/spoken";
import { whyNot, whyNotInOrder } from "@/core/view/why-not";
import { FilterList } from "../shared/filter-list";
import { NumberEntry } from "../shared/number-entry";
import { type Option, OptionList } from "../shared/option-list";
import { PhrasePanel } from "../shared/phrase-panel";
import { NumberChoices } from "./number-choices";
import { OrderChoices } from "./order-choices";
import { PictureChoices } from "./picture-choices";
import { ZoneList } from "./zone-list";

type Change = Partial<Omit<Visual, "id">>;

interface Props {
  token: PhraseToken;
  saying: Saying;
  format: NumberFormat;
  /** The id of the palette that colours its categories. */
  palette: string;
  set: (change: Change) => void;
  close: () => void;
}

const OR = "Or";
const takeOut = (pick: () => void, label = "Take it out"): Option => ({
  key: "none",
  label,
  group: OR,
  pick,
});

/** The measures to choose from, and a way to do without where that is possible. */
function MeasureChoices({
  token,
  saying,
  close,
  chosen,
  among = saying.project.measures,
  change,
  set,
  without,
}: Pick<Props, "token" | "saying" | "close" | "set"> & {
  chosen: string | null;
  among?: Saying["project"]["measures"];
  /** What choosing a measure changes. */
  change: (id: string) => Change;
  without?: () => void;
}) {
  const { visual, project } = saying;
  const group = without ? "Measures" : undefined;
  return (
    <OptionList
      label={token.label}
      chosen={chosen ?? undefined}
      close={close}
      options={[
        ...among.map((m) => ({
          key: m.id,
          label: m.label,
          hint: homeTableOf(m, project) ?? "",
          group,
          why: whyNot(visual, change(m.id), project),
          pick: () => set(change(m.id)),
        })),
        ...(without ? [takeOut(without)] : []),
      ]}
    />
  );
}

/** How many rows have a place of their own, and what becomes of the rest. */
function KeepChoices({ saying, set, close }: Pick<Props, "saying" | "set" | "close">) {
  const { keep } = saying.visual;
  const first = keep?.first ?? 6;
  return (
    <>
      <div className="border-b border-rule p-3">
        <NumberEntry
          label="The first"
          value={first}
          format={PLAIN_FORMAT}
          onCommit={(n) => {
            const count = Math.min(200, Math.max(1, Math.round(n)));
            set({ keep: { first: count, others: keep?.others ?? true } });
            close();
          }}
        />
      </div>
      <OptionList
        label="Keep"
        close={close}
        options={[
          { key: "others", label: "The rest as Other", pick: () => set({ keep: { first, others: true } }) },
          { key: "drop", label: "Leave the rest out", pick: () => set({ keep: { first, others: false } }) },
          { key: "all", label: "Keep all of them", pick: () => set({ keep: null }) },
        ]}
      />
    </>
  );
}

function SplitChoices({
  token,
  saying,
  field,
  set,
  close,
}: Omit<Props, "format" | "palette"> & { field: "split" | "series" }) {
  const { visual, project } = saying;
  const split = visual[field];
  const change = (next: Visual["split"]): Change =>
    field === "split"
      ? { split: next, order: orderAfter(visual, next) }
      : { series: next, ...(next ? { more: [] } : {}) };
  return (
    <OptionList
      label={token.label}
      chosen={split ? JSON.stringify(split) : undefined}
      close={close}
      options={[
        ...offeredSplits(offeredColumns(project, homeTableOfVisual(visual, project))).map((o) => ({
          key: JSON.stringify(o.split),
          label: o.label,
          group: o.group,
          why: whyNot(visual, change(o.split), project),
          pick: () => set(change(o.split)),
        })),
        ...(split ? [takeOut(() => set(change(null)), field === "split" ? "No split" : undefined)] : []),
      ]}
    />
  );
}

/** The splits that a reader of a board can step down to: the finer stretches of the same dates first. */
function StepChoices({ token, saying, at, set, close }: Omit<Props, "format" | "palette"> & { at: number }) {
  const { visual, project } = saying;
  const { split, steps } = visual;
  const above = at === 0 ? split : steps[at - 1];
  const taken = new Set([split, ...steps].map((s) => JSON.stringify(s)));
  const change = (next: NonNullable<Visual["split"]>) =>
    set({ steps: [...steps.slice(0, at), next, ...steps.slice(at + 1)] });
  const free = offeredSplits(offeredColumns(project, homeTableOfVisual(visual, project))).filter(
    (o) => !taken.has(JSON.stringify(o.split)) || JSON.stringify(o.split) === JSON.stringify(steps[at]),
  );
  const isFiner = (o: OfferedSplit) => o.split.column === above?.column && o.split.by !== undefined;
  return (
    <OptionList
      label={token.label}
      chosen={steps[at] ? JSON.stringify(steps[at]) : undefined}
      close={close}
      options={[
        ...free.filter(isFiner).map((o) => ({ ...o, group: `Within ${above?.by ?? "it"}` })),
        ...free.filter((o) => !isFiner(o)),
      ]
        .map(
          ({ split: next, label, group }): Option => ({
            key: JSON.stringify(next),
            label,
            group,
            // A step is answered as the split is that it takes the place of.
            why: whyNot(visual, { split: next }, project),
            pick: () => change(next),
          }),
        )
        .concat(at < steps.length ? [takeOut(() => set({ steps: steps.filter((_, i) => i !== at) }))] : [])}
    />
  );
}

function Choices({ token, saying, format, palette, set, close }: Props) {
  const { visual, project, pictured } = saying;
  const { phrase } = token;
  const { more } = visual;
  const free = project.measures.filter((m) => m.id !== visual.value && !more.includes(m.id));
  const common = { token, saying, close, set };
  switch (phrase.type) {
    case "kind":
      return (
        <OptionList
          label="Kind"
          chosen={visual.kind}
          close={close}
          options={KINDS.map((k) => ({ key: k.id, label: k.label, pick: () => set({ kind: k.id }) }))}
        />
      );
    case "measure": {
      const { field } = phrase;
      const id = visual[field];
      const without = field !== "value" && id ? () => set({ [field]: null }) : undefined;
      return (
        <MeasureChoices {...common} chosen={id} change={(next) => ({ [field]: next })} without={without} />
      );
    }
    case "further measure": {
      const id = more[phrase.at];
      return (
        <MeasureChoices
          {...common}
          chosen={id}
          among={free}
          change={(next) => ({ more: more.map((k) => (k === id ? next : k)) })}
          without={() => set({ more: more.filter((k) => k !== id) })}
        />
      );
    }
    case "add measure":
      return (
        <MeasureChoices
          {...common}
          chosen={null}
          among={free}
          change={(next) => ({ more: [...more, next] })}
        />
      );
    case "number": {
      const { field } = phrase;
      return (
        <NumberChoices
          label={token.label}
          source={visual[field]}
          format={format}
          ofRows={hasRows(visual) && (field === "target" || field === "baseline")}
          whyNot={(next) => whyNot(visual, { [field]: next }, project)}
          close={close}
          onChange={(source) => set({ [field]: source })}
        />
      );
    }
    case "first zones":
    case "zones":
      return (
        <ZoneList
          zones={visual.zones}
          format={areShares(visual) ? PERCENT_FORMAT : format}
          saying={saying}
          onChange={(zones) => set({ zones })}
        />
      );
    case "split":
      return <SplitChoices {...common} field={phrase.field} />;
    case "step":
      return <StepChoices {...common} at={phrase.at} />;
    case "pictures":
      return <PictureChoices visual={visual} pictured={pictured} />;
    case "order": {
      const { field } = phrase;
      const why = whyNotInOrder(visual, field, project);
      return (
        <>
          {why && <p className="max-w-80 border-b border-rule p-3 text-sm">{why}</p>}
          <OrderChoices
            saying={saying}
            field={field}
            label={token.label}
            palette={palette}
            close={close}
            set={(order) => (order || field === "seriesOrder") && set({ [field]: order })}
          />
        </>
      );
    }
    case "keep":
      return <KeepChoices saying={saying} set={set} close={close} />;
    case "filters":
      return (
        <FilterList
          columns={filterColumns({ visual, project })}
          filters={visual.filters}
          onChange={(filters) => set({ filters })}
        />
      );
  }
}

/** What a phrase of the sentence can be instead. */
export const PhraseChoices = (props: Props) => (
  <PhrasePanel label={props.token.label}>
    <Choices {...props} />
  </PhrasePanel>
);
