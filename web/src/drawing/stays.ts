import type { Schema } from "../api/client";
import type { Print } from "../app/units";

type Stays = Schema["Stays"];

/** Less than this is nothing: it would print as 0. */
const WORTH_L = 0.0005;

/** What stays after draining, in the words of every screen: the sum, where it is, and what is apart. */
export function stayWords(s: Stays, print: Print): { sum: string; where: string; apart: string } {
  const litres = (l: number) => print(l, "volume");
  const places: [number, string][] = [
    [s.poolsL, "in dips"],
    [s.partsL, "in parts"],
    [s.tanksL, "in tanks"],
    [s.airlockedL, "airlocked"],
    [s.filmL, "as film and in sags"],
  ];
  const there = places.filter(([l]) => l >= WORTH_L);
  const apart = [
    s.protectedL >= WORTH_L ? `${litres(s.protectedL)} of it is in antifreeze` : null,
    s.byDesignL - s.protectedL >= WORTH_L ? `${litres(s.byDesignL - s.protectedL)} of it is kept by design` : null,
    s.byHandL >= WORTH_L ? `${litres(s.byHandL)} emptied by hand` : null,
  ].filter(Boolean);
  return {
    sum: s.totalL < WORTH_L ? "nothing left" : `${litres(s.totalL)} left`,
    where: there.map(([l, place]) => (there.length > 1 ? `${litres(l)} ${place}` : place)).join(", "),
    apart: apart.join("; "),
  };
}

/** Spans of a length that hold water once it is drained, as shares of it: what lies in a pool, and what hangs for want of air. */
export const spansOf = (s: Schema["Station"]): { pool: [number, number] | null; hangs: [number, number] | null } => ({
  pool: s.wetTo > s.wetFrom ? [s.wetFrom, s.wetTo] : null,
  hangs: s.airlockedTo > s.airlockedFrom ? [s.airlockedFrom, s.airlockedTo] : null,
});

/** What hangs in a bore is drawn as beads. */
export const hanging = (weight: number) => ({
  strokeWidth: 8 * weight,
  strokeDasharray: `0.1 ${13 * weight}`,
  strokeLinecap: "round" as const,
});
