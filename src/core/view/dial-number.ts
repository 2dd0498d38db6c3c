import type { NumberDial } from "../kinds/anatomy/dial";

/** A number as a dial says it: percents and degrees close to it, others after a space. */
export const withUnit = (n: number, unit: string): string => `${n}${/^[a-z]/.test(unit) ? ` ${unit}` : unit}`;

const TYPED = /^\s*(-?\d+(?:[.,]\d+)?)\s*(\S*)\s*$/;

/** The number that is typed for a dial, with its unit or without; null where it is none. */
export function readTyped({ unit }: Pick<NumberDial, "unit">, text: string): number | null {
  const found = TYPED.exec(text);
  if (!found || (found[2] !== "" && found[2].toLowerCase() !== unit.toLowerCase())) return null;
  return Number(found[1].replace(",", "."));
}

/** Why a dial cannot be set to what is typed; null where it can. */
export function typedProblem(dial: NumberDial, text: string): string | null {
  const { min, max, unit, default: standard } = dial;
  const wanted = readTyped(dial, text);
  if (wanted === null) return `Write a number, for example ${withUnit(standard, unit)}.`;
  return wanted >= min && wanted <= max ? null : `From ${withUnit(min, unit)} to ${withUnit(max, unit)}.`;
}
