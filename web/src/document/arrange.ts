import type { Schema } from "../api/client";
import { changed } from "./edits";
import { courseOf, distance, fallOf, indexOf, type Rig, type Run, type Xyz } from "./geometry";
import { keyOf, moverOf, placeOf, putAt, rounded, type Thing } from "./things";

type Edit = Schema["Edit"];
type Fixed = (partId: string) => boolean;

const flat = (a: Xyz, b: Xyz) => Math.hypot(a.xM - b.xM, a.yM - b.yM);

/** Heights of places whose first and last stay: each its share of the level way between them. */
function heightsBetween(places: Xyz[]): number[] {
  let way = 0;
  const along = places.map((p, i) => {
    way += i > 0 ? flat(places[i - 1] as Xyz, p) : 0;
    return way;
  });
  const [from, to] = [places[0]?.zM ?? 0, places.at(-1)?.zM ?? 0];
  return along.map((a) => from + ((to - from) * a) / (way || 1));
}

/** How far one thing is from another: along, across, up and straight. Null where one of them has no place of its own. */
export function measured(rig: Rig, a: Thing, b: Thing) {
  const [from, to] = [placeOf(rig, a), placeOf(rig, b)];
  if (!from || !to) return null;
  const [along, across, up] = [to.xM - from.xM, to.yM - from.yM, to.zM - from.zM];
  return { along, across, up, straight: distance(from, to), fall: fallOf(from, to) };
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
  if (placed.length < 3) return [];
  const heights = heightsBetween(placed.map((p) => p.at));
  return withHeights(
    rig,
    placed.slice(1, -1).map(({ thing }, i) => [thing, heights[i + 1] as number]),
    fixed,
  );
}

/** The bends of a run, each as high as its share of the way between the ends. */
export function fallBetweenEnds(rig: Rig, run: Run): Edit[] {
  const heights = heightsBetween(courseOf(rig, run).map((p) => p.at));
  const bends = run.bends.map((b, i) => ({ ...b, at: rounded({ ...b.at, zM: heights[i + 1] as number }) }));
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
