import type { Schema } from "../api/client";

export type Rig = Schema["Rig"];
export type Run = Schema["Run"];
export type Part = Schema["Part"];
export type Xyz = Schema["Point3"];

/** A point of a run: an end (`from`, `to`) or a bend. */
export interface RunPoint {
  id: string;
  at: Xyz;
}

interface Index {
  parts: Map<string, Part>;
  runs: Map<string, Run>;
  /** Runs by the parts that they meet. */
  runsAt: Map<string, Run[]>;
}

const known = new WeakMap<Rig, Index>();

/** A rig by id; worked out once for each state of it. */
export function indexOf(rig: Rig): Index {
  let index = known.get(rig);
  if (!index) {
    const runsAt = new Map<string, Run[]>();
    for (const run of rig.runs)
      for (const part of new Set([run.from.part, run.to.part])) if (part) runsAt.set(part, [...(runsAt.get(part) ?? []), run]);
    index = { parts: new Map(rig.parts.map((p) => [p.id, p])), runs: new Map(rig.runs.map((r) => [r.id, r])), runsAt };
    known.set(rig, index);
  }
  return index;
}

export const plus = (a: Xyz, b: Xyz): Xyz => ({ xM: a.xM + b.xM, yM: a.yM + b.yM, zM: a.zM + b.zM });
export const minus = (a: Xyz, b: Xyz): Xyz => ({ xM: a.xM - b.xM, yM: a.yM - b.yM, zM: a.zM - b.zM });
export const towards = (a: Xyz, b: Xyz, t: number): Xyz => ({
  xM: a.xM + (b.xM - a.xM) * t,
  yM: a.yM + (b.yM - a.yM) * t,
  zM: a.zM + (b.zM - a.zM) * t,
});
/** A length that is steeper than this, level over long, stands upright: it has no fall. */
const PLUMB = 0.02;

/** Fall of a straight length: what it drops by over how long it is, as the core tells it. Null where it stands upright. */
export function fallOf(a: Xyz, b: Xyz, dropM = a.zM - b.zM): number | null {
  const length = distance(a, b);
  return length === 0 || Math.hypot(a.xM - b.xM, a.yM - b.yM) < PLUMB * length ? null : dropM / length;
}

export const distance = (a: Xyz, b: Xyz) => Math.hypot(a.xM - b.xM, a.yM - b.yM, a.zM - b.zM);
export const middleOf = (box: Schema["Box"]) => towards(box.at, plus(box.at, box.size), 0.5);

export const volumeOf = ({ size }: Schema["Box"]) => size.xM * size.yM * size.zM;

/** What a port is called: by the builder, else as stock has it. */
export const called = (port: Schema["Port"]) => port.name ?? port.id;

/** Where a port of a part is: the invert of the pipe. */
export function portAt(part: Part, portId: string | null | undefined): Xyz | null {
  const port = part.ports.find((p) => p.id === portId);
  return port ? plus(part.box.at, port.offset) : null;
}

/** A run between parts as they are now, as the answers had them, and as a view has them that follows. */
const MOST_COURSES = 3;
/** Ports of a part that runs are joined to. */
export function portsTaken(rig: Rig, partId: string): ReadonlySet<string> {
  const runs = indexOf(rig).runsAt.get(partId) ?? [];
  return new Set(runs.flatMap((r) => [r.from, r.to].flatMap((e) => (e.part === partId && e.port ? [e.port] : []))));
}

/** Ports that no run ends on, and where they are. */
export const freePorts = (rig: Rig) =>
  rig.parts.flatMap((part) => {
    const taken = portsTaken(rig, part.id);
    return part.ports
      .filter((p) => !taken.has(p.id))
      .map((port) => ({ words: `${part.name} ${called(port)}`, part: part.id, port: port.id, at: plus(part.box.at, port.offset) }));
  });

const courses = new WeakMap<Run, { from: Part | undefined; to: Part | undefined; course: RunPoint[] }[]>();

/** The points of a run in the order of flow, as the document has them. The same object as long as nothing of it has changed. */
export function courseOf(rig: Rig, run: Run): RunPoint[] {
  const { parts } = indexOf(rig);
  const from = parts.get(run.from.part ?? "");
  const to = parts.get(run.to.part ?? "");
  const old = courses.get(run) ?? [];
  const known = old.find((c) => c.from === from && c.to === to);
  if (known) return known.course;
  const end = (id: string, at: Xyz | null | undefined): RunPoint[] => (at ? [{ id, at }] : []);
  const course = [
    ...end("from", run.from.at ?? (from && portAt(from, run.from.port))),
    ...run.bends,
    ...end("to", run.to.at ?? (to && portAt(to, run.to.port))),
  ];
  courses.set(run, [{ from, to, course }, ...old].slice(0, MOST_COURSES));
  return course;
}

export const lengthOf = (course: RunPoint[]) =>
  course.reduce((sum, p, i) => sum + (i > 0 ? distance((course[i - 1] as RunPoint).at, p.at) : 0), 0);

const tan = (deg: number) => Math.tan((deg * Math.PI) / 180);

/** Height over the ground of the vehicle as it is parked, by the core's rule for a slope. */
export const heightOver = (parked: Schema["Attitude"] | undefined, p: Xyz) =>
  p.zM + (parked ? p.xM * tan(parked.pitchDeg) + p.yM * tan(parked.rollDeg) : 0);

/** Smallest box around places, grown by `padM`. */
export function boxAround(places: Xyz[], padM = 0): Schema["Box"] {
  const low = { xM: Infinity, yM: Infinity, zM: Infinity };
  const high = { xM: -Infinity, yM: -Infinity, zM: -Infinity };
  for (const p of places)
    for (const axis of ["xM", "yM", "zM"] as const) {
      low[axis] = Math.min(low[axis], p[axis]);
      high[axis] = Math.max(high[axis], p[axis]);
    }
  const pad = { xM: padM, yM: padM, zM: padM };
  return { at: minus(low, pad), size: plus(minus(high, low), plus(pad, pad)) };
}

const plumbing = new WeakMap<Rig, Schema["Box"] | null>();

/** Where the plumbing is: all parts and runs; the body where there is none yet. */
export function plumbingOf(rig: Rig, padM = 0.12): Schema["Box"] {
  let around = plumbing.get(rig);
  if (around === undefined) {
    const places = [
      ...rig.parts.flatMap((p) => [p.box.at, plus(p.box.at, p.box.size)]),
      ...rig.runs.flatMap((r) => r.bends.map((b) => b.at)),
    ];
    around = places.length === 0 ? null : boxAround(places);
    plumbing.set(rig, around);
  }
  return around ? boxAround([around.at, plus(around.at, around.size)], padM) : rig.shell.body;
}
