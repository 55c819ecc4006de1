import { useMemo } from "react";
import type { Schema } from "../api/client";
import { useCatalogue } from "./catalogue";
import { useSettings } from "./settings";

type Quantity = Schema["Quantity"];

/** Prints a value of the core in the reader's units, by the rules that the server gives. */
export type Print = (value: number | null | undefined, quantity: Quantity, bare?: boolean) => string;

/** Minus with its own width, and no minus before a zero. */
function decimal(value: number, digits: number) {
  const text = value.toFixed(digits);
  return (Number(text) === 0 ? text.replace("-", "") : text).replace("-", "−");
}

function fraction(value: number, denominator: number) {
  const parts = Math.round(Math.abs(value) * denominator);
  const whole = Math.floor(parts / denominator);
  let [top, bottom] = [parts % denominator, denominator];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const sign = value < 0 && parts > 0 ? "−" : "";
  if (top === 0) return `${sign}${whole}`;
  return whole > 0 ? `${sign}${whole} ${top}/${bottom}` : `${sign}${top}/${bottom}`;
}

/** As a tape is read: "9 ft 10 1/8 in", "9 ft 0 in". */
function feetAndInches(feet: number, denominator: number) {
  const parts = Math.round(Math.abs(feet) * 12 * denominator);
  const inches = fraction((parts % (12 * denominator)) / denominator, denominator);
  return `${feet < 0 ? "−" : ""}${Math.floor(parts / (12 * denominator))} ft ${inches} in`;
}

/** A printer by rules for a unit system. `bare` leaves the unit out. */
export function printBy(rules: Schema["PrintRule"][] | undefined, system: Schema["UnitSystem"]): Print {
  return (value, quantity, bare = false) => {
    if (value == null || !Number.isFinite(value)) return "never";
    const rule = rules?.find((r) => r.quantity === quantity && r.system === system && Math.abs(value) < r.below);
    if (!rule) return "";
    const written = value / rule.factor - rule.offset;
    if (rule.denominator > 1 && rule.symbol === "ft") return feetAndInches(written, rule.denominator);
    const digits = rule.denominator > 1 ? fraction(written, rule.denominator) : decimal(written, rule.decimals);
    // A count has no noughts behind its point.
    const number = quantity === "number" ? digits.replace(/\.?0+$/, "") : digits;
    if (bare || rule.symbol === "") return number;
    return rule.symbol === "°" || rule.symbol === "%" ? number + rule.symbol : `${number} ${rule.symbol}`;
  };
}

/** A printer for the unit system in use. */
export function usePrint(): Print {
  const { rules } = useCatalogue();
  const system = useSettings((s) => s.system);
  return useMemo(() => printBy(rules, system), [rules, system]);
}

const rule = new Intl.PluralRules("en");

/** A count with its noun: "1 issue", "2 issues"; without `many` the noun gets an s. */
/** A time that may be short: in seconds below a minute and a half. */
export const lasting = (seconds: number, print: Print) =>
  seconds < 90 ? plural(Math.round(seconds), "second") : print(seconds, "duration");

export const plural = (count: number, one: string, many = `${one}s`) => `${count} ${rule.select(count) === "one" ? one : many}`;

/** A sentence of the core with its values filled in. */
export function say(sentence: Schema["Sentence"], print: Print) {
  return sentence.text.replace(/\{\{|\}\}|\{(\d+)\}/g, (found, n) => {
    // A brace that means itself is doubled.
    if (n === undefined) return found[0] as string;
    const measure = sentence.values[Number(n)];
    return measure ? print(measure.value, measure.quantity) : "";
  });
}

/** The hour of the day, so many seconds after the start of the night, with its day; estimates are worth no more than a quarter of an hour. */
export function clock(startHour: number, seconds: number, hours12 = false) {
  const minutes = Math.round((startHour * 60 + seconds / 60) / 15) * 15;
  const day = Math.floor(minutes / 1440);
  const hour = Math.floor((minutes % 1440) / 60);
  const past = String(minutes % 60).padStart(2, "0");
  const text = hours12 ? `${hour % 12 || 12}:${past} ${hour < 12 ? "am" : "pm"}` : `${String(hour).padStart(2, "0")}:${past}`;
  return day === 0 ? text : day === 1 ? `${text} next day` : `${text}, day ${day + 1}`;
}

/** The same by the reader's clock. */
export function useClock() {
  const hours12 = useSettings((s) => s.hours12);
  return useMemo(() => (startHour: number, seconds: number) => clock(startHour, seconds, hours12), [hours12]);
}
