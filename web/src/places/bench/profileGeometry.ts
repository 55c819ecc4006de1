import type { Schema } from "../../api/client";
import type { Stock } from "../../app/catalogue";
import { courseOf, distance, fallOf, heightOver, indexOf, type Rig, type Run, type RunPoint } from "../../document/geometry";
import { keyOf, type Thing } from "../../document/things";
import { drainRoute } from "../../document/way";

/** A point of the unrolled way from a run to its drain. */
export interface StripPoint {
  /** Distance along the whole way, m. */
  alongM: number;
  /** Height over the ground, as parked. */
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
  /** What moves when it is pulled. */
  mover: Thing | null;
  /** Why it cannot be moved, where it cannot. */
  fixed: string | null;
}

/** A straight length of the way. */
export interface StripLength {
  from: StripPoint;
  to: StripPoint;
  boreM: number;
  own: boolean;
  /** Falls along the strip when positive, climbs when negative; null where it is plumb. */
  fall: number | null;
  /** Its water leaves along the strip (1), against it (-1) or nowhere (0). */
  direction: number;
  wetFrom: number;
  wetTo: number;
  /** Where it hangs for want of air. */
  hangsFrom: number;
  hangsTo: number;
  /** It is full, in a rig that is in use: nothing that stays. */
  full: boolean;
  levelM: number | null | undefined;
}

export interface Strip {
  points: StripPoint[];
  lengths: StripLength[];
  lengthM: number;
  /** Where the run in hand ends and its way to the drain begins, m. */
  ownM: number;
  lowM: number;
  highM: number;
  /** Tanks at its ends, and arches it goes over: heights over the ground. */
  bodies: { fromM: number; toM: number; lowM: number; highM: number; name: string; kind: "tank" | "arch" }[];
  /** The floor along the way. */
  floor: { alongM: number; heightM: number }[];
}

export interface StripAnswers {
  drain: Schema["DrainDownAnswer"];
  /** The rig that they are about. */
  about: Rig;
}

interface Around {
  rig: Rig;
  stock: Stock;
  bores: Map<string, number>;
  parked: Schema["Attitude"] | undefined;
  answers: StripAnswers | null;
  /** The water system is full: no water has left. */
  full: boolean;
}

/**
 * Unrolls the run in hand and the runs its water passes on the way out. Places are the document's; what the water does is the
 * answers', where they are about these places.
 */
export function unroll(around: Around, runId: string): Strip | null {
  const { rig, answers, parked, bores } = around;
  const { runs } = indexOf(rig);
  const drains = new Map(answers?.drain.runs.map((r) => [r.runId, r]));
  if (!runs.has(runId)) return null;
  const points: StripPoint[] = [];
  const lengths: StripLength[] = [];
  const floor: Strip["floor"] = [];
  const bodies: Strip["bodies"] = [];
  let start = 0;
  let ownM = 0;
  for (const id of drainRoute(drains, runId)) {
    const run = runs.get(id);
    if (!run) continue;
    const own = id === runId;
    const drain = drains.get(id);
    const course = courseOf(rig, run);
    const before = answers && indexOf(answers.about).runs.get(id);
    const current = answers && before && courseOf(answers.about, before) === course ? drain : undefined;
    const way = course.map((p, index) => ({ p, index }));
    if (drain?.reversed) way.reverse();
    let along = start;
    const made = way.map(({ p, index }, k) => {
      const last = way[k - 1];
      if (last) along += distance(last.p.at, p.at);
      floor.push({ alongM: along, heightM: heightOver(parked, { ...p.at, zM: 0 }) });
      return { ...point(around, run, p, index), alongM: along, own, at: p.at };
    });
    for (let k = 0; k + 1 < made.length; k++) {
      const [from, to] = [made[k] as (typeof made)[number], made[k + 1] as (typeof made)[number]];
      // A length is described at the station where it starts in the run's own sense.
      const s = current?.stations[Math.min(from.number, to.number)];
      const turned = drain?.reversed ? -1 : 1;
      const wet = around.full ? { wetFrom: 0, wetTo: 1, airlockedFrom: 0, airlockedTo: 0, standsAtM: null } : s;
      const [wetFrom, wetTo] = turnedSpan(turned, wet?.wetFrom, wet?.wetTo);
      const [hangsFrom, hangsTo] = turnedSpan(turned, wet?.airlockedFrom, wet?.airlockedTo);
      lengths.push({
        from,
        to,
        own,
        boreM: bores.get(run.pipe) ?? 0.012,
        fall: fallOf(from.at, to.at, from.heightM - to.heightM),
        direction: (s?.direction ?? 0) * turned,
        wetFrom,
        wetTo,
        hangsFrom,
        hangsTo,
        full: around.full,
        levelM: wet?.standsAtM,
      });
      bodies.push(...archesUnder(rig, from, to, parked));
    }
    bodies.push(...tanksAt(around, made));
    points.push(...made);
    start = along;
    if (own) ownM = along;
  }
  const heights = points.map((p) => p.heightM);
  return { points, lengths, lengthM: start, ownM, lowM: Math.min(...heights), highM: Math.max(...heights), bodies, floor };
}

type Made = StripPoint & { at: Schema["Point3"] };

/** Arches that a length passes over or through. */
function archesUnder(rig: Rig, from: Made, to: Made, parked: Schema["Attitude"] | undefined): Strip["bodies"] {
  return rig.shell.obstacles.flatMap((o) => {
    // The share of the length over the footprint.
    let [a, b] = [0, 1];
    for (const axis of ["xM", "yM"] as const) {
      const [start, step] = [from.at[axis], to.at[axis] - from.at[axis]];
      const [low, high] = [o.box.at[axis], o.box.at[axis] + o.box.size[axis]];
      if (Math.abs(step) < 1e-9) {
        if (start < low || start > high) return [];
        continue;
      }
      const [t0, t1] = [(low - start) / step, (high - start) / step];
      a = Math.max(a, Math.min(t0, t1));
      b = Math.min(b, Math.max(t0, t1));
    }
    if (b <= a) return [];
    const along = (t: number) => from.alongM + (to.alongM - from.alongM) * t;
    const low = heightOver(parked, o.box.at);
    return [
      {
        fromM: along(a),
        toM: along(b),
        lowM: low,
        highM: low + o.box.size.zM,
        name: o.kind === "wheelArch" ? "arch" : o.name,
        kind: "arch" as const,
      },
    ];
  });
}

/** Tanks at the ends of a run, standing outward from it. */
function tanksAt({ rig, stock, parked }: Around, made: Made[]): Strip["bodies"] {
  const { parts } = indexOf(rig);
  return [made[0], made.at(-1)].flatMap((end, i) => {
    const part = end?.partId ? parts.get(end.partId) : undefined;
    if (!end || !part || stock.get(part.stock)?.passage !== "vessel") return [];
    const low = heightOver(parked, part.box.at);
    const width = 0.12;
    return [
      {
        fromM: i === 0 ? end.alongM - width : end.alongM,
        toM: i === 0 ? end.alongM : end.alongM + width,
        lowM: low,
        highM: low + part.box.size.zM,
        name: part.name,
        kind: "tank" as const,
      },
    ];
  });
}

function point({ rig, stock, parked }: Around, run: Run, p: RunPoint, index: number): Omit<StripPoint, "alongM" | "own"> {
  const end = p.id === "from" ? run.from : p.id === "to" ? run.to : null;
  const part = end?.part ? indexOf(rig).parts.get(end.part) : undefined;
  const base = { heightM: heightOver(parked, p.at), builtM: p.at.zM, runId: run.id, pointId: p.id, number: index };
  const self: Thing = { kind: "point", runId: run.id, pointId: p.id };
  if (!part) return { ...base, partId: null, name: end ? "loose end" : null, mover: self, fixed: null };
  const fixed = stock.get(part.stock)?.passage === "vessel" ? `${part.name} is fixed here; move it in the plan or the side view` : null;
  return { ...base, partId: part.id, name: part.name, mover: fixed ? null : { kind: "part", partId: part.id }, fixed };
}

/** A span of a length as the strip runs. */
const turnedSpan = (turned: number, from = 0, to = 0): [number, number] => (turned < 0 && to > from ? [1 - to, 1 - from] : [from, to]);

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

/** Two points that move the same thing. */
export const sameMover = (a: Thing | null, b: Thing | null) => a !== null && b !== null && keyOf(a) === keyOf(b);
