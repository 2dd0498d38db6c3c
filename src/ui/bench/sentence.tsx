"use client";
import { memo } from "react";
import { findNamed } from "@/core/base/names";
import { formatNumber, PLAIN_FORMAT } from "@/core/base/number-format";
import { KINDS, kindOf } from "@/core/kinds";
import { scaleOf } from "@/core/kinds/anatomy/scale";

import { offeredColumns } from "@/core/project/offered";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { saysTheSame } from "@/core/view/look";
import { NumberEntry } from "../shared/number-entry";
import { useProject } from "../shared/project-context";
import { useDraft } from "../shared/results";
import { splitOptions } from "../shared/split-options";
import { FiltersPhrase } from "./filters-phrase";
import { OptionList, Phrase } from "./phrase";
import { PicturesPhrase } from "./pictures-phrase";
import { MeasurePhrase, MorePhrase, SplitPhrase } from "./role-phrases";
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
    const table = findNamed(tables, measure?.table);
    const format = measure?.format ?? PLAIN_FORMAT;
    const set = (change: Partial<Omit<Visual, "id">>) =>
      apply({ type: "change visual", id: visual.id, change });
    const has = (role: (typeof kind.roles)[number]) => kind.roles.includes(role);
    const splits = splitOptions(draft, table?.name ?? null);
    const order = ORDERS.find((o) => o.by === visual.order.by && o.order === visual.order.order) ?? ORDERS[0];
    const scale = scaleOf({
      minimum: data.minimum,
      maximum: data.maximum,
      target: data.target,
      value: data.total,
      format,
      past: "hold",
    });
    return (
      <p className="max-w-[820px] text-lg leading-9">
        Show{" "}
        <Phrase
          label="Measure"
          text={measure ? measure.label.toLowerCase() : "a measure …"}
          tone={measure ? "data" : "missing"}
        >
          {(close) => (
            <OptionList
              label="Measure"
              chosen={visual.value ?? undefined}
              close={close}
              options={measures.map((m) => ({
                key: m.id,
                label: m.label,
                hint: m.table ?? "",
                pick: () => set({ value: m.id }),
              }))}
            />
          )}
        </Phrase>{" "}
        {has("more") && (
          <MorePhrase value={visual.value} more={visual.more} onChange={(more) => set({ more })} />
        )}{" "}
        as{" "}
        <Phrase label="Kind" text={kind.phrase}>
          {(close) => (
            <OptionList
              label="Kind"
              chosen={visual.kind}
              close={close}
              options={KINDS.map((k) => ({ key: k.id, label: k.label, pick: () => set({ kind: k.id }) }))}
            />
          )}
        </Phrase>
        {has("second") && (
          <>
            {visual.second ? " around " : " "}
            <MeasurePhrase
              label="Second value"
              id={visual.second}
              missing="around a second value …"
              onChange={(second) => set({ second })}
            />
          </>
        )}
        {has("comparison") && (
          <>
            {visual.comparison ? ", compared with " : ", "}
            <SourcePhrase
              label="Comparison"
              source={visual.comparison}
              format={format}
              missing="compared with …"
              allowNone
              onChange={(comparison) => set({ comparison })}
            />
          </>
        )}
        {has("target") && (
          <>
            {visual.target ? " against " : " "}
            <SourcePhrase
              label="Target"
              source={visual.target}
              format={format}
              missing="against a target …"
              allowNone
              onChange={(target) => set({ target })}
            />
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
            ,{" "}
            <ZonesPhrases
              zones={visual.zones}
              format={format}
              maximum={scale.maximum}
              onChange={(zones) => set({ zones })}
            />
          </>
        )}
        {has("split") && (
          <SplitPhrase
            label="Split"
            word={visual.kind === "number" ? "over" : "split by"}
            split={visual.split}
            splits={splits}
            onChange={(split) => set({ split })}
          />
        )}
        {has("series") && visual.split && (
          <SplitPhrase
            label="Series"
            word="each divided by"
            split={visual.series}
            splits={splits}
            onChange={(series) => set({ series, ...(series ? { more: [] } : {}) })}
          />
        )}
        {has("headSize") && (
          <>
            {visual.headSize ? ", heads sized by " : ", "}
            <MeasurePhrase
              label="Head size"
              id={visual.headSize}
              missing="heads sized by …"
              onChange={(headSize) => set({ headSize })}
            />
          </>
        )}
        {has("pictures") && visual.split && (
          <PicturesPhrase visual={visual} labels={data.rows.map((r) => r.label)} />
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
                  options={ORDERS.map((o) => ({
                    key: o.key,
                    label: o.label,
                    pick: () => set({ order: { by: o.by, order: o.order } }),
                  }))}
                />
              )}
            </Phrase>
          </>
        )}
        {has("keep") && visual.split && (
          <>
            , keeping{" "}
            <Phrase
              label="Keep"
              text={
                visual.keep
                  ? `the first ${visual.keep.first}${visual.keep.others ? " and Other" : ""}`
                  : "all of them"
              }
            >
              {(close) => (
                <>
                  <div className="border-b border-rule p-3">
                    <NumberEntry
                      label="The first"
                      value={visual.keep?.first ?? 6}
                      format={PLAIN_FORMAT}
                      onCommit={(n) => {
                        set({
                          keep: {
                            first: Math.min(200, Math.max(1, Math.round(n))),
                            others: visual.keep?.others ?? true,
                          },
                        });
                        close();
                      }}
                    />
                  </div>
                  <OptionList
                    label="Keep"
                    close={close}
                    options={[
                      {
                        key: "others",
                        label: "The rest as Other",
                        pick: () => set({ keep: { first: visual.keep?.first ?? 6, others: true } }),
                      },
                      {
                        key: "drop",
                        label: "Leave the rest out",
                        pick: () => set({ keep: { first: visual.keep?.first ?? 6, others: false } }),
                      },
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
            , for{" "}
            <FiltersPhrase
              columns={offeredColumns(draft, table.name)}
              filters={visual.filters}
              onChange={(filters) => set({ filters })}
            />
          </>
        )}
        .
      </p>
    );
  },
  (a, b) => a.data === b.data && saysTheSame(a.visual, b.visual),
);
