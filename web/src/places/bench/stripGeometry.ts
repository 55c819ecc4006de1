import type { Schema } from "../../api/client";
import type { Stock } from "../../app/catalogue";
import { type Handle, partOf, runOf } from "./benchStore";

type Rig = Schema["Rig"];
type Station = Schema["Station"];

/** A point of the unrolled way from a run to its drain. */
export interface StripPoint {
  /** Distance along the whole way, m. */
  alongM: number;
  heightM: number;
  /** Height above the floor, as built (not tilted), m. */
  builtM: number;
  runId: string;
  /** Its id in its run: a bend's, or `from` or `to`. */
  pointId: string;
  /** Its number along its run, for a bend that has no other name. */
  number: number;
  own: boolean;
  partId: string | null;
  name: string | null;
  handle: Handle | null;
  /** Why it cannot be moved, where it cannot. */
  fixed: string | null;
}

/** A straight length of the way. */
export interface StripLength {
  from: StripPoint;
  to: StripPoint;
  boreM: number;
  own: boolean;
  /** Along the way: positive when it falls the way the water goes. */
  fall: number | null | undefined;
  wetFrom: number;
  wetTo: number;
  levelM: number | null | undefined;
}

export interface Strip {
  points: StripPoint[];
  lengths: StripLength[];
  lengthM: number;
  lowM: number;
  highM: number;
}

/** Unrolls the chosen run and the runs its water passes on the way out. */
export function unroll(rig: Rig, stock: Stock, drain: Schema["DrainDownAnswer"], runId: string): Strip | null {
  const answers = new Map(drain.runs.map((r) => [r.runId, r]));
  if (!answers.has(runId)) return null;
  const points: StripPoint[] = [];
  const lengths: StripLength[] = [];
  let start = 0;
  for (const answer of routeOf(answers, runId)) {
    const run = runOf(rig, answer.runId);
    if (!run) continue;
    const own = answer.runId === runId;
    const order = answer.stations.map((station, index) => ({ station, index }));
    if (answer.reversed) order.reverse();
    const made = order.map(({ station, index }) => ({
      ...point(rig, stock, run, station, index),
      alongM: start + (answer.reversed ? answer.lengthM - station.distanceM : station.distanceM),
      own,
    }));
    for (let k = 0; k + 1 < made.length; k++) {
      const from = made[k] as StripPoint;
      const to = made[k + 1] as StripPoint;
      // A length is described at the station where it starts in the run's own sense.
      const s = answer.stations[Math.min(from.number, to.number)] as Station;
      lengths.push({
        from,
        to,
        own,
        boreM: answer.boreM,
        fall: s.fall,
        wetFrom: answer.reversed ? 1 - s.wetTo : s.wetFrom,
        wetTo: answer.reversed ? 1 - s.wetFrom : s.wetTo,
        levelM: s.standsAtM,
      });
    }
    points.push(...made);
    start += answer.lengthM;
  }
  const heights = points.map((p) => p.heightM);
  return { points, lengths, lengthM: start, lowM: Math.min(...heights), highM: Math.max(...heights) };
}

/** The run and those that its water passes on its way out, as far as it gets. */
function routeOf(answers: Map<string, Schema["RunDrain"]>, runId: string) {
  const route: Schema["RunDrain"][] = [];
  for (let at = answers.get(runId); at && !route.includes(at); at = answers.get(at.leadsTo ?? "")) route.push(at);
  return route;
}

/** The level at which the largest pool of the chosen run stands, from its water to its crest. */
export function poolLine(strip: Strip, pools: Schema["PoolAnswer"][], runId: string) {
  const heldBy = (p: Schema["PoolAnswer"]) => p.shares.find((s) => s.runId === runId)?.retainedL ?? 0;
  const pool = [...pools].sort((a, b) => heldBy(b) - heldBy(a))[0];
  const wet = strip.lengths.filter((l) => l.own && l.wetTo > l.wetFrom);
  const first = wet[0];
  const last = wet.at(-1);
  if (!pool || heldBy(pool) === 0 || pool.levelM == null || !first || !last) return null;
  const { crest } = pool;
  const point =
    crest && strip.points.find((p) => (crest.partId ? p.partId === crest.partId : p.runId === crest.runId && p.pointId === crest.pointId));
  const along = (l: StripLength, share: number) => l.from.alongM + (l.to.alongM - l.from.alongM) * share;
  const fromM = along(first, first.wetFrom);
  const toM = along(last, last.wetTo);
  return {
    levelM: pool.levelM,
    fromM: Math.min(fromM, point?.alongM ?? fromM),
    toM: Math.max(toM, point?.alongM ?? toM),
    crest: crest?.words ?? null,
  };
}

function point(rig: Rig, stock: Stock, run: Schema["Run"], station: Station, index: number): Omit<StripPoint, "alongM" | "own"> {
  const end = station.id === "from" ? run.from : station.id === "to" ? run.to : null;
  const part = end?.part ? partOf(rig, end.part) : undefined;
  const base = {
    heightM: station.heightM,
    builtM: station.at.zM,
    runId: run.id,
    pointId: station.id,
    number: index,
  };
  if (end && !part) return { ...base, partId: null, name: "loose end", handle: null, fixed: "This end is joined to nothing yet" };
  if (!part) return { ...base, partId: null, name: null, handle: { kind: "bend", runId: run.id, bendId: station.id }, fixed: null };
  const fixed = stock.get(part.stock)?.passage === "vessel" ? `${part.name} stands where it stands; move a tank in the shell` : null;
  return { ...base, partId: part.id, name: part.name, handle: fixed ? null : { kind: "part", partId: part.id }, fixed };
}

/** Two handles that move the same thing. */
export const sameHandle = (a: Handle | null, b: Handle | null) => JSON.stringify(a) === JSON.stringify(b);
