"use client";
import { memo } from "react";
import { PLAIN_FORMAT } from "@/core/base/number-format";
import { gaugeScale } from "@/core/kinds/gauge/gauge-scale";
import { areShares, firstZones } from "@/core/kinds/gauge/zones";
import type { Visual } from "@/core/project/schema";
import { picturedIn } from "@/core/rows/picture-key";
import type { VisualData } from "@/core/rows/visual-data";
import { titleAfter } from "@/core/view/first-set-up";
import { saysTheSame } from "@/core/view/look";
import { styleOf } from "@/core/view/picture";
import { say, tokenKeys } from "@/core/view/sentence";
import { whyNotInOrder } from "@/core/view/why-not";
import { useDesign } from "../shared/design";
import { later } from "../shared/fetched-later";
import { Phrase } from "../shared/phrase";
import { useProject } from "../shared/project-context";
import { useDraft } from "../shared/results";

// The choices are fetched when somebody is about to open a phrase.
/** Fetches the choices of phrases. */
export const fetchChoices = () => import("./phrase-choices");
const PhraseChoices = later(() => fetchChoices().then((m) => m.PhraseChoices), { waiting: () => null });

/** The visual's data set-up as one sentence; every phrase of it changes in place. */
export const Sentence = memo(
  function Sentence({ visual, data }: { visual: Visual; data: VisualData }) {
    const { draft } = useDraft();
    const apply = useProject((s) => s.apply);
    const design = useDesign();
    const format = draft.measures.find((m) => m.id === visual.value)?.format ?? PLAIN_FORMAT;
    const scale = gaugeScale({ ...data, format }, "hold", areShares(visual));
    const saying = { visual, project: draft, scale, pictured: picturedIn(data.rows) };
    const set = (change: Partial<Omit<Visual, "id">>) => {
      const title = titleAfter(visual, change);
      const followed = title === visual.title ? change : { ...change, title };
      apply({ type: "change visual", id: visual.id, change: followed });
    };
    const style = styleOf(visual, design);
    const palette = style.has("colours.palette") ? String(style.value("colours.palette")) : "";
    const tokens = say(saying);
    const keys = tokenKeys(tokens);
    return (
      <p className="max-w-[820px] text-lg leading-9 short:text-base short:leading-7">
        {tokens.map((token, i) => {
          if (typeof token === "string") return <span key={keys[i]}>{token}</span>;
          if (token.phrase.type === "first zones") {
            return (
              <button
                key={keys[i]}
                type="button"
                className="mx-0.5 inline rounded-t-sm border-b-2 border-dotted border-muted px-1.5 leading-7 font-semibold text-muted hover:text-ink"
                onClick={() => set({ zones: firstZones(areShares(visual) ? 1 : scale.maximum) })}
              >
                {token.text}
              </button>
            );
          }
          const { phrase } = token;
          const why = phrase.type === "order" ? whyNotInOrder(visual, phrase.field, draft) : null;
          return (
            <Phrase
              key={keys[i]}
              label={token.label}
              text={why ? `${token.text}, which is not possible here` : token.text}
              tone={why ? "missing" : token.tone}
              why={why}
              fetch={() => void fetchChoices()}
            >
              {(close) => (
                <PhraseChoices
                  token={token}
                  saying={saying}
                  format={format}
                  palette={palette}
                  set={set}
                  close={close}
                />
              )}
            </Phrase>
          );
        })}
      </p>
    );
  },
  (a, b) => a.data === b.data && saysTheSame(a.visual, b.visual),
);
