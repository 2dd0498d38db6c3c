import { formatNumber } from "../base/number-format";
import { hasRole } from "../kinds";
import { gaugeScale } from "../kinds/gauge/gauge-scale";
import { areShares } from "../kinds/gauge/zones";
import { change, type DrawnFacts, type ReviewRule, turn } from "./finding";

/** A gauge whose value lies past the ends that were named. */
export const pastScale: ReviewRule = {
  id: "past the scale",
  look: (facts) => {
    const { visual, data, measure } = facts;
    const { total, minimum, maximum } = data;
    if (!hasRole(visual.kind, "range") || total === null) return null;
    const isPast = maximum !== null && total > maximum;
    if (!isPast && !(minimum !== null && total < minimum)) return null;
    const end = isPast ? maximum : minimum;
    return {
      text: `${formatNumber(total, measure.format)} lies ${isPast ? "past the end" : "below the start"} of the scale, ${formatNumber(end, measure.format)}.`,
      why: "The needle stands at the end and cannot show how far the value goes.",
      mend: change(
        isPast ? "Take the end of the scale out" : "Take the start of the scale out",
        facts,
        isPast ? { maximum: null } : { minimum: null },
      ),
    };
  },
};

/** Zones whose edges do not rise, or that end before the scale does. */
export const brokenZones: ReviewRule = {
  id: "broken zones",
  look: (facts) => {
    const { zones } = facts.data;
    const said = facts.visual.zones;
    if (!hasRole(facts.visual.kind, "zones") || zones.length === 0) return null;
    const edges = zones.map((z) => z.to ?? Number.POSITIVE_INFINITY);
    const isRising = edges.every((e, i) => i === 0 || e > edges[i - 1]);
    const isEnded = edges.at(-1) !== Number.POSITIVE_INFINITY;
    if (isRising && !isEnded) return null;
    const sorted = zones.toSorted(
      (a, b) => (a.to ?? Number.POSITIVE_INFINITY) - (b.to ?? Number.POSITIVE_INFINITY),
    );
    const apart = sorted.filter((z, i) => i === 0 || z.to !== sorted[i - 1].to);
    const kept = apart.map(({ at }) => said[at]);
    const whole =
      apart.at(-1)?.to === null ? kept : [...kept.slice(0, -1), { ...kept[kept.length - 1], to: null }];
    return {
      text: isRising
        ? "The last zone ends before the scale does."
        : "Two zones overlap: their edges do not rise.",
      why: "A value can fall into no zone, or into two, and its word is then wrong.",
      mend: change(isRising ? "Let the last zone go on" : "Put the edges in order", facts, { zones: whole }),
    };
  },
};

/** Zones whose edges lie where the scale has no place: left behind when its ends or its format changed. */
export const zonesOffScale: ReviewRule = {
  id: "zones off the scale",
  look: (facts) => {
    const { visual, data } = facts;
    if (!hasRole(visual.kind, "zones") || data.zones.length === 0 || areShares(visual)) return null;
    const { minimum, maximum } = gaugeScale({ ...data, total: null, atRest: null }, "hold", false);
    const ends = data.maximum === null && data.format.style !== "percent" ? [minimum] : [minimum, maximum];
    const off = data.zones.flatMap(({ to }) =>
      to !== null && (to <= ends[0] || to > (ends[1] ?? Number.POSITIVE_INFINITY)) ? [to] : [],
    );
    if (off.length === 0) return null;
    const write = (n: number) => formatNumber(n, data.format);
    const edges = data.zones.filter((z) => z.to !== null).length;
    const spread = (i: number) =>
      Number((minimum + ((maximum - minimum) * (i + 1)) / (edges + 1)).toPrecision(3));
    let at = -1;
    return {
      text: `${off.length === 1 ? "An edge" : `${off.length} edges`} of zones ${off.length === 1 ? "lies" : "lie"} off the scale: ${off.map(write).join(", ")} on ${write(minimum)} to ${write(maximum)}.`,
      why: "Zones that have no place on the scale are not drawn, and every value falls into one of the others.",
      mend: change("Spread the zones over the scale", facts, {
        zones: visual.zones.map((zone) => (zone.to === null ? zone : { ...zone, to: spread(++at) })),
      }),
    };
  },
};

/** Two scales in one picture, which are compared all the same. */
export const twoScales: ReviewRule = {
  id: "two scales",
  look: (facts) => {
    const { visual, style, data } = facts;
    if (!style.has("scale.of") || style.value("scale.of") !== "two" || data.second === null) return null;
    if (visual.size.height >= 160) return null;
    return {
      text: "The two bars have scales of their own, and the picture is too small to say so.",
      why: "Lengths beside each other are compared, whatever they count.",
      mend: turn("Use one scale", facts, "scale.of", "one"),
    };
  },
};

/** An arc that fills from a start above zero: its length is no measure of the value. */
function fillNotFromZero(facts: DrawnFacts) {
  const { style, data, measure, visual } = facts;
  const start = data.minimum ?? 0;
  if (start <= 0 || style.value("arc.fill") === "zones") return null;
  return {
    text: `The arc fills from ${formatNumber(start, measure.format)}, not from zero.`,
    why: "How much of the arc is filled is then no measure of the value.",
    mend: visual.zones.length
      ? turn("Fill it with the zones", facts, "arc.fill", "zones")
      : change("Start at zero", facts, { minimum: null }),
  };
}

/** A scale that does not start at zero. */
export const baselineNotZero: ReviewRule = {
  id: "baseline not zero",
  look: (facts) => {
    const { visual, style, data, measure } = facts;
    if (hasRole(visual.kind, "range")) return fillNotFromZero(facts);
    if (!hasRole(visual.kind, "baseline")) return null;
    if (data.own.baseline !== null)
      return {
        text: `Each stem starts at its own ${data.own.baseline}, not at zero.`,
        why: "The length of a stem is then how far its value is from there.",
        mend: change("Start at zero", facts, { baseline: null }),
      };
    const isMoved = (data.baseline ?? 0) !== 0;
    const isNear = !isMoved && style.value("domain.start") === "near";
    if (!isNear && !isMoved) return null;
    return {
      text: isNear
        ? "The scale starts near the lowest value, not at zero."
        : `Stems start at ${formatNumber(data.baseline, measure.format)}, not at zero.`,
      why: "The length of a stem is then no measure of its value.",
      mend: isNear
        ? turn("Start at zero", facts, "domain.start", "zero")
        : change("Start at zero", facts, { baseline: null }),
    };
  },
};
