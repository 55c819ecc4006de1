import type { Schema } from "../../api/client";
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
  /** Index of the station in its run. */
  station: number;
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
export function unroll(rig: Rig, drain: Schema["DrainDownAnswer"], runId: string): Strip | null {
  const chosen = drain.runs.find((r) => r.runId === runId);
  if (!chosen) return null;
  const points: StripPoint[] = [];
  const lengths: StripLength[] = [];
  let start = 0;
  for (const leg of chosen.route) {
    const run = runOf(rig, leg.runId);
    const answer = drain.runs.find((r) => r.runId === leg.runId);
    if (!run || !answer) continue;
    const own = leg.runId === runId;
    const order = answer.stations.map((station, index) => ({ station, index }));
    if (leg.reversed) order.reverse();
    const made = order.map(({ station, index }) => ({
      ...point(rig, run, station, index),
      alongM: start + (leg.reversed ? answer.lengthM - station.distanceM : station.distanceM),
      own,
    }));
    for (let k = 0; k + 1 < made.length; k++) {
      const from = made[k] as StripPoint;
      const to = made[k + 1] as StripPoint;
      // A length is described at the station where it starts in the run's own sense.
      const s = answer.stations[Math.min(from.station, to.station)] as Station;
      lengths.push({
        from,
        to,
        own,
        boreM: answer.boreM,
        fall: s.fall,
        wetFrom: leg.reversed ? 1 - s.wetTo : s.wetFrom,
        wetTo: leg.reversed ? 1 - s.wetFrom : s.wetTo,
        levelM: s.standsAtM,
      });
    }
    points.push(...made);
    start += answer.lengthM;
  }
  const heights = points.map((p) => p.heightM);
  return { points, lengths, lengthM: start, lowM: Math.min(...heights), highM: Math.max(...heights) };
}

/** The level at which the largest pool of the chosen run stands, from its water to its crest. */
export function poolLine(strip: Strip, pools: Schema["PoolAnswer"][], runId: string) {
  const heldBy = (p: Schema["PoolAnswer"]) => p.shares.find((s) => s.runId === runId)?.heldL ?? 0;
  const pool = [...pools].sort((a, b) => heldBy(b) - heldBy(a))[0];
  const wet = strip.lengths.filter((l) => l.own && l.wetTo > l.wetFrom);
  const first = wet[0];
  const last = wet.at(-1);
  if (!pool || heldBy(pool) === 0 || pool.levelM == null || !first || !last) return null;
  const { crest } = pool;
  const point =
    crest &&
    strip.points.find((p) => (crest.partId ? p.partId === crest.partId : p.runId === crest.runId && p.station === crest.pointIndex));
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

const vessels = new Set(["tank", "grey-tank", "storage-heater", "calorifier"]);

function point(rig: Rig, run: Schema["Run"], station: Station, index: number): Omit<StripPoint, "alongM" | "own"> {
  const last = run.via.length + 1;
  const end = index === 0 ? run.from : index === last ? run.to : null;
  const part = end ? partOf(rig, end.part) : undefined;
  const base = {
    heightM: station.heightM,
    builtM: station.at.zM,
    runId: run.id,
    station: index,
  };
  if (!part) return { ...base, partId: null, name: null, handle: { kind: "bend", runId: run.id, bend: index - 1 }, fixed: null };
  const fixed = vessels.has(part.stock) ? `${part.name} stands where it stands; move a tank in the shell` : null;
  return { ...base, partId: part.id, name: part.name, handle: fixed ? null : { kind: "part", partId: part.id }, fixed };
}

/** Two handles that move the same thing. */
export const sameHandle = (a: Handle | null, b: Handle | null) => JSON.stringify(a) === JSON.stringify(b);
