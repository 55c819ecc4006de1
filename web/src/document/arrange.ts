import type { Schema } from "../api/client";
import { distance, fallOf, indexOf, type Rig } from "./geometry";
import { pathOf, placeOf, rounded, type Thing } from "./things";

type Edit = Schema["Edit"];

/** How far one thing is from another: along, across, up and straight. Null where one of them has no place of its own. */
export function measured(rig: Rig, a: Thing, b: Thing) {
  const [from, to] = [placeOf(rig, a), placeOf(rig, b)];
  if (!from || !to) return null;
  const [along, across, up] = [to.xM - from.xM, to.yM - from.yM, to.zM - from.zM];
  return { along, across, up, straight: distance(from, to), fall: fallOf(from, to) };
}

/** Gives all the height of the first, or each its share of the fall from the first to the last; of a run alone, between its ends. */
export function graded(things: Thing[], grading: Schema["Grading"]): Edit[] {
  const alone = things.length === 1 && things[0]?.kind === "run";
  const placed = alone ? things : things.filter((t) => t.kind !== "run" && t.kind !== "zone");
  if (!alone && placed.length < (grading === "even" ? 3 : 2)) return [];
  return [{ kind: "grade", things: placed.map(pathOf), grading } as Edit];
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
