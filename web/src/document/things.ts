import type { Schema } from "../api/client";
import { changed } from "./edits";
import { called, courseOf, freePorts, indexOf, middleOf, portAt, type Rig, type Xyz } from "./geometry";

type Edit = Schema["Edit"];

/** What a hand can hold. A point of a run is named by its bend, or `from` and `to`. */
export type Thing =
  | { kind: "run"; runId: string }
  | { kind: "point"; runId: string; pointId: string }
  | { kind: "part"; partId: string }
  | { kind: "port"; partId: string; portId: string }
  | { kind: "zone"; zoneId: string };

export const keyOf = (thing: Thing): string => Object.values(thing).join("/");
export const sameThing = (a: Thing | undefined, b: Thing | undefined) => a !== undefined && b !== undefined && keyOf(a) === keyOf(b);

/** Path of a thing, as edits name it. */
export function pathOf(thing: Thing): string {
  switch (thing.kind) {
    case "run":
      return `runs/${thing.runId}`;
    case "point":
      return `runs/${thing.runId}/${thing.pointId === "from" || thing.pointId === "to" ? thing.pointId : `bends/${thing.pointId}`}`;
    case "part":
      return `parts/${thing.partId}`;
    case "port":
      return `parts/${thing.partId}/ports/${thing.portId}`;
    case "zone":
      return `shell/zones/${thing.zoneId}`;
  }
}

/** Whether a thing is still there. */
export function isThere(rig: Rig, thing: Thing): boolean {
  const { parts, runs } = indexOf(rig);
  switch (thing.kind) {
    case "run":
      return runs.has(thing.runId);
    case "point": {
      const run = runs.get(thing.runId);
      return run !== undefined && courseOf(rig, run).some((p) => p.id === thing.pointId);
    }
    case "part":
      return parts.has(thing.partId);
    case "port":
      return parts.get(thing.partId)?.ports.some((p) => p.id === thing.portId) ?? false;
    case "zone":
      return rig.shell.zones.some((z) => z.id === thing.zoneId);
  }
}

/** Where a thing is: a point; the corner of a part or zone; null for a run as a whole. */
export function placeOf(rig: Rig, thing: Thing): Xyz | null {
  const { parts, runs } = indexOf(rig);
  switch (thing.kind) {
    case "run":
      return null;
    case "point": {
      const run = runs.get(thing.runId);
      return (run && courseOf(rig, run).find((p) => p.id === thing.pointId)?.at) ?? null;
    }
    case "part":
      return parts.get(thing.partId)?.box.at ?? null;
    case "port": {
      const part = parts.get(thing.partId);
      return part ? portAt(part, thing.portId) : null;
    }
    case "zone":
      return rig.shell.zones.find((z) => z.id === thing.zoneId)?.box.at ?? null;
  }
}

/** What is to be seen of a thing: all its places. */
export function extentOf(rig: Rig, thing: Thing): Xyz[] {
  const { parts, runs } = indexOf(rig);
  if (thing.kind === "run") {
    const run = runs.get(thing.runId);
    return run ? courseOf(rig, run).map((p) => p.at) : [];
  }
  const box = thing.kind === "part" ? parts.get(thing.partId)?.box : undefined;
  const at = box ? middleOf(box) : placeOf(rig, thing);
  return at ? [at] : [];
}

/** Name of a thing in the builder's words. */
export function nameOf(rig: Rig, thing: Thing): string {
  const { parts, runs } = indexOf(rig);
  switch (thing.kind) {
    case "run":
      return runs.get(thing.runId)?.name ?? "";
    case "point": {
      const run = runs.get(thing.runId);
      if (!run) return "";
      const end = thing.pointId === "from" ? run.from : thing.pointId === "to" ? run.to : null;
      if (end) return end.part ? `${run.name}, at ${parts.get(end.part)?.name}` : `${run.name}, loose end`;
      const number = run.bends.findIndex((b) => b.id === thing.pointId);
      return `${run.name}, ${run.bends[number]?.fixing ?? "bend"} ${number + 1}`;
    }
    case "part":
      return parts.get(thing.partId)?.name ?? "";
    case "port": {
      const part = parts.get(thing.partId);
      const port = part?.ports.find((p) => p.id === thing.portId);
      return port ? `${part?.name}, port ${called(port)}` : "";
    }
    case "zone":
      return rig.shell.zones.find((z) => z.id === thing.zoneId)?.name ?? "";
  }
}

/** What moves when a thing is moved: an end that is joined moves its part, or stays where the part is fixed. */
export function moverOf(rig: Rig, thing: Thing, fixed: (partId: string) => boolean): Thing | null {
  if (thing.kind === "run" || thing.kind === "zone") return null;
  // On a tank each port is put where it is drilled; elsewhere it comes with its part.
  if (thing.kind === "port") return fixed(thing.partId) ? thing : { kind: "part", partId: thing.partId };
  if (thing.kind === "part") return thing;
  const run = indexOf(rig).runs.get(thing.runId);
  const end = thing.pointId === "from" ? run?.from : thing.pointId === "to" ? run?.to : null;
  if (!end?.part) return thing;
  return fixed(end.part) ? null : { kind: "part", partId: end.part };
}

const tenth = (m: number) => Math.round(m * 10_000) / 10_000;
/** Lengths are kept to the tenth of a millimetre. */
export const rounded = (p: Xyz): Xyz => ({ xM: tenth(p.xM), yM: tenth(p.yM), zM: tenth(p.zM) });

// As near as this an end lies on a port, m.
const ON_PORT = 0.005;

/** The port that a place lies on, if nothing is joined to it. */
export function freePort(rig: Rig, at: Xyz): { part: string; port: string } | null {
  const on = freePorts(rig).find((p) => Math.hypot(p.at.xM - at.xM, p.at.yM - at.yM, p.at.zM - at.zM) <= ON_PORT);
  return on ? { part: on.part, port: on.port } : null;
}

/** The edit that puts a thing (as {@link moverOf} gives it) at a place. */
export function putAt(rig: Rig, thing: Thing, at: Xyz): Edit {
  if (thing.kind === "part") {
    const box = indexOf(rig).parts.get(thing.partId)?.box as Schema["Box"];
    return changed(`parts/${thing.partId}`, { box: { ...box, at: rounded(at) } });
  }
  if (thing.kind === "port") {
    const { box } = indexOf(rig).parts.get(thing.partId) as Schema["Part"];
    const held = (axis: keyof Xyz) => Math.min(box.size[axis], Math.max(0, at[axis] - box.at[axis]));
    return changed(`parts/${thing.partId}/ports/${thing.portId}`, { offset: rounded({ xM: held("xM"), yM: held("yM"), zM: held("zM") }) });
  }
  if (thing.kind !== "point") throw new Error(`A ${thing.kind} is not put at a place.`);
  if (thing.pointId === "from" || thing.pointId === "to")
    return changed(`runs/${thing.runId}`, { [thing.pointId]: freePort(rig, at) ?? { at: rounded(at) } });
  return changed(`runs/${thing.runId}/bends/${thing.pointId}`, { at: rounded(at) });
}

/** Edits that move several things by so much, each mover once. */
export function movedBy(rig: Rig, things: Thing[], by: Xyz, fixed: (partId: string) => boolean): Edit[] {
  const movers = new Map<string, Thing>();
  for (const thing of things) {
    const parts =
      thing.kind === "run"
        ? (indexOf(rig).runs.get(thing.runId)?.bends ?? []).map((b) => ({ kind: "point", runId: thing.runId, pointId: b.id }) as const)
        : [thing];
    for (const one of parts) {
      const mover = moverOf(rig, one, fixed);
      if (mover) movers.set(keyOf(mover), mover);
    }
  }
  return [...movers.values()].flatMap((mover) => {
    const at = placeOf(rig, mover);
    return at ? [putAt(rig, mover, { xM: at.xM + by.xM, yM: at.yM + by.yM, zM: at.zM + by.zM })] : [];
  });
}
