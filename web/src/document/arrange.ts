import type { Schema } from "../api/client";
import { changed } from "./edits";
import { courseOf, indexOf, type Rig, type Run, type Xyz } from "./geometry";
import { keyOf, moverOf, placeOf, putAt, rounded, type Thing } from "./things";

type Edit = Schema["Edit"];
type Fixed = (partId: string) => boolean;

const flat = (a: Xyz, b: Xyz) => Math.hypot(a.xM - b.xM, a.yM - b.yM);

/** How far one thing is from another: along, across, up and straight. Null where one of them has no place of its own. */
export function measured(rig: Rig, a: Thing, b: Thing) {
  const [from, to] = [placeOf(rig, a), placeOf(rig, b)];
  if (!from || !to) return null;
  const [along, across, up] = [to.xM - from.xM, to.yM - from.yM, to.zM - from.zM];
  const level = Math.hypot(along, across);
  return { along, across, up, straight: Math.hypot(level, up), fall: level > 1e-6 ? -up / level : null };
}

/** Edits that give things other heights; what is moved by another of them, or cannot be moved, is left. */
function withHeights(rig: Rig, heights: [Thing, number][], fixed: Fixed): Edit[] {
  const movers = new Set<string>();
  return heights.flatMap(([thing, zM]) => {
    const at = placeOf(rig, thing);
    const mover = moverOf(rig, thing, fixed);
    const from = mover && placeOf(rig, mover);
    if (!at || !mover || !from || movers.has(keyOf(mover)) || Math.abs(zM - at.zM) < 1e-6) return [];
    movers.add(keyOf(mover));
    return [putAt(rig, mover, { ...from, zM: from.zM + zM - at.zM })];
  });
}

/** All as high as the first that was taken. */
export function level(rig: Rig, things: Thing[], fixed: Fixed): Edit[] {
  const [first, ...rest] = things;
  const zM = first && placeOf(rig, first)?.zM;
  return zM === undefined
    ? []
    : withHeights(
        rig,
        rest.map((t): [Thing, number] => [t, zM]),
        fixed,
      );
}

/** From the first to the last that was taken, each as high as its share of the way between them. */
export function evenFall(rig: Rig, things: Thing[], fixed: Fixed): Edit[] {
  const placed = things.flatMap((thing) => {
    const at = placeOf(rig, thing);
    return at ? [{ thing, at }] : [];
  });
  const [first, last] = [placed[0], placed.at(-1)];
  if (!first || !last || placed.length < 3) return [];
  const along = placed.map((_, i) => placed.slice(0, i).reduce((sum, p, k) => sum + flat(p.at, (placed[k + 1] as typeof p).at), 0));
  const whole = along.at(-1) || 1;
  return withHeights(
    rig,
    placed.slice(1, -1).map(({ thing }, i) => [thing, first.at.zM + ((last.at.zM - first.at.zM) * (along[i + 1] as number)) / whole]),
    fixed,
  );
}

/** The bends of a run, each as high as its share of the way between the ends. */
export function fallBetweenEnds(rig: Rig, run: Run): Edit[] {
  const course = courseOf(rig, run);
  const along = course.map((_, i) => course.slice(0, i).reduce((sum, p, k) => sum + flat(p.at, (course[k + 1] as typeof p).at), 0));
  const [from, to] = [course[0]?.at.zM ?? 0, course.at(-1)?.at.zM ?? 0];
  const whole = along.at(-1) || 1;
  const bends = run.bends.map((b, i) => ({ ...b, at: rounded({ ...b.at, zM: from + ((to - from) * (along[i + 1] as number)) / whole }) }));
  return run.bends.length === 0 ? [] : [changed(`runs/${run.id}`, { bends })];
}

/** To the other side of the vehicle. */
export function mirrored(rig: Rig, things: Thing[]): Edit[] {
  const { parts, runs } = indexOf(rig);
  const { at, size } = rig.shell.body;
  const across = (yM: number) => 2 * at.yM + size.yM - yM;
  const move = (thing: string, yM: number): Edit => ({ kind: "move", things: [thing], by: rounded({ xM: 0, yM, zM: 0 }) }) as Edit;
  const bends = new Map<string, Edit>();
  const taken = new Set<string>();
  const edits: Edit[] = [];
  for (const thing of things) {
    const part = thing.kind === "part" || thing.kind === "port" ? parts.get(thing.partId) : undefined;
    if (part && !taken.has(part.id)) {
      taken.add(part.id);
      edits.push({ kind: "mirror", partId: part.id, axis: "y" } as Edit);
      edits.push(move(`parts/${part.id}`, across(part.box.at.yM + part.box.size.yM) - part.box.at.yM));
    }
    const run = "runId" in thing ? runs.get(thing.runId) : undefined;
    for (const b of run?.bends ?? [])
      if (thing.kind === "run" || (thing.kind === "point" && thing.pointId === b.id))
        bends.set(`runs/${run?.id}/bends/${b.id}`, move(`runs/${run?.id}/bends/${b.id}`, across(b.at.yM) - b.at.yM));
  }
  return [...edits, ...bends.values()];
}
