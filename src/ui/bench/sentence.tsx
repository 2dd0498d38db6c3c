"use client";
import { memo } from "react";
import { KINDS, kindOf } from "@/core/kinds";
import { scaleOf } from "@/core/kinds/scale";
import { PLAIN_FORMAT, type VisualData } from "@/core/kinds/visual-data";
import { changeVisual } from "@/core/project/edits";
import { offeredColumns } from "@/core/project/offered";
import type { Visual } from "@/core/project/schema";
import { formatNumber } from "@/core/scene/number-format";
import { NumberEntry } from "../shared/number-entry";
import { useProject } from "../shared/project-context";
import { useDraft } from "../shared/results";
import { splitOptions } from "../shared/split-options";
import { FiltersPhrase } from "./filters-phrase";
import { OptionList, Phrase } from "./phrase";
import { saysTheSame } from "./sentences";
import { SourcePhrase } from "./source-phrase";
import { ZonesPhrases } from "./zones-phrase";

const ORDERS = [
  { key: "value desc", by: "value", order: "desc", label: "largest first" },
  { key: "value asc", by: "value", order: "asc", label: "smallest first" },
  { key: "split asc", by: "split", order: "asc", label: "in its own order" },
  { key: "split desc", by: "split", order: "desc", label: "in its own order, backwards" },
] as const;

/** The visual's data set-up as one sentence; every phrase of it changes in place. */
export const Sentence = memo(
  function Sentence({ visual, data }: { visual: Visual; data: VisualData }) {
    const { draft } = useDraft();
    const { measures, tables } = draft;
    const apply = useProject((s) => s.apply);
    const kind = kindOf(visual.kind);
    const measure = measures.find((m) => m.id === visual.value);
    const table = tables.find((t) => t.name.toLowerCase() === measure?.table?.toLowerCase());
    const format = measure?.format ?? PLAIN_FORMAT;
    const set = (change: Partial<Omit<Visual, "id">>) => apply(changeVisual(visual.id, change));
    const has = (role: (typeof kind.roles)[number]) => kind.roles.includes(role);
    const splits = splitOptions(draft, table?.name ?? null);
    const split = visual.split && splits.find((o) => o.value === JSON.stringify(visual.split));
    const order = ORDERS.find((o) => o.by === visual.order.by && o.order === visual.order.order) ?? ORDERS[0];
    const scale = scaleOf({ minimum: data.minimum, maximum: data.maximum, target: data.target, value: data.total, format, past: "hold" });
    return (
      <p className="max-w-[820px] text-lg leading-9">
        Show{" "}
        <Phrase label="Measure" text={measure ? measure.label.toLowerCase() : "a measure …"} tone={measure ? "data" : "missing"}>
          {(close) => (
            <OptionList
              label="Measure"
              chosen={visual.value ?? undefined}
              close={close}
              options={measures.map((m) => ({ key: m.id, label: m.label, hint: m.table ?? "", pick: () => set({ value: m.id }) }))}
            />
          )}
        </Phrase>{" "}
        as{" "}
        <Phrase label="Kind" text={kind.phrase}>
          {(close) => <OptionList label="Kind" chosen={visual.kind} close={close} options={KINDS.map((k) => ({ key: k.id, label: k.label, pick: () => set({ kind: k.id }) }))} />}
        </Phrase>
        {has("target") && (
          <>
            {visual.target ? " against " : " "}
            <SourcePhrase label="Target" source={visual.target} format={format} missing="against a target …" allowNone onChange={(target) => set({ target })} />
          </>
        )}
        {has("range") && (
          <>
            , from{" "}
            <SourcePhrase
              label="Minimum"
              source={visual.minimum}
              format={format}
              missing={formatNumber(scale.minimum, format)}
              allowNone
              onChange={(minimum) => set({ minimum })}
            />{" "}
            to{" "}
            <SourcePhrase
              label="Maximum"
              source={visual.maximum}
              format={format}
              missing={formatNumber(scale.maximum, format)}
              allowNone
              onChange={(maximum) => set({ maximum })}
            />
          </>
        )}
        {has("zones") && (
          <>
            , <ZonesPhrases zones={visual.zones} format={format} maximum={scale.maximum} onChange={(zones) => set({ zones })} />
          </>
        )}
        {has("split") && (
          <>
            {split ? ", split by " : ", "}
            <Phrase label="Split" text={split ? split.label : visual.split ? `split by ${visual.split.column}, which is gone` : "split by …"} tone={split ? "data" : "missing"}>
              {(close) => (
                <OptionList
                  label="Split"
                  chosen={split ? split.value : undefined}
                  close={close}
                  options={[
                    ...splits.map((o) => ({ key: o.value, label: o.label, group: o.group, pick: () => set({ split: JSON.parse(o.value) }) })),
                    ...(visual.split ? [{ key: "none", label: "No split", group: "Or", pick: () => set({ split: null }) }] : []),
                  ]}
                />
              )}
            </Phrase>
          </>
        )}
        {has("order") && visual.split && (
          <>
            ,{" "}
            <Phrase label="Order" text={order.label}>
              {(close) => (
                <OptionList
                  label="Order"
                  chosen={order.key}
                  close={close}
                  options={ORDERS.map((o) => ({ key: o.key, label: o.label, pick: () => set({ order: { by: o.by, order: o.order } }) }))}
                />
              )}
            </Phrase>
          </>
        )}
        {has("keep") && visual.split && (
          <>
            , keeping{" "}
            <Phrase label="Keep" text={visual.keep ? `the first ${visual.keep.first}${visual.keep.others ? " and Other" : ""}` : "all of them"}>
              {(close) => (
                <>
                  <div className="border-b border-rule p-3">
                    <NumberEntry
                      label="The first"
                      value={visual.keep?.first ?? 6}
                      format={PLAIN_FORMAT}
                      onCommit={(n) => {
                        set({ keep: { first: Math.min(200, Math.max(1, Math.round(n))), others: visual.keep?.others ?? true } });
                        close();
                      }}
                    />
                  </div>
                  <OptionList
                    label="Keep"
                    close={close}
                    options={[
                      { key: "others", label: "The rest as Other", pick: () => set({ keep: { first: visual.keep?.first ?? 6, others: true } }) },
                      { key: "drop", label: "Leave the rest out", pick: () => set({ keep: { first: visual.keep?.first ?? 6, others: false } }) },
                      { key: "all", label: "Keep all of them", pick: () => set({ keep: null }) },
                    ]}
                  />
                </>
              )}
            </Phrase>
          </>
        )}
        {table && (
          <>
            , for <FiltersPhrase columns={offeredColumns(draft, table.name)} filters={visual.filters} onChange={(filters) => set({ filters })} />
          </>
        )}
        .
      </p>
    );
  },
  (a, b) => a.data === b.data && saysTheSame(a.visual, b.visual),
);
