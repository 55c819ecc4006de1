import type { Schema } from "../api/client";
import { courseOf, indexOf, type Rig } from "./geometry";
import type { Thing } from "./things";

export interface Way {
  runs: ReadonlySet<string>;
  parts: ReadonlySet<string>;
}

const sameSet = (a: ReadonlySet<string>, b: ReadonlySet<string>) => a.size === b.size && [...a].every((x) => b.has(x));
export const sameWay = (a: Way, b: Way) => sameSet(a.runs, b.runs) && sameSet(a.parts, b.parts);

/**
 * What belongs to what is selected: the line back to the tank that it comes from, on to where it ends, and where it drains to. Null where
 * nothing is selected that a line leads through.
 */
export function wayOf(rig: Rig, things: Thing[], drains: Schema["RunDrain"][], isTank: (partId: string) => boolean): Way | null {
  const { runs, runsAt } = indexOf(rig);
  const selected = things.flatMap((t) => ("runId" in t ? [t.runId] : "partId" in t ? (runsAt.get(t.partId) ?? []).map((r) => r.id) : []));
  if (selected.length === 0) return null;
  const way = new Set<string>();
  const follow = (start: string, next: (runId: string) => string[]) => {
    const open = [start];
    const seen = new Set(open);
    for (let id = open.pop(); id !== undefined; id = open.pop()) {
      way.add(id);
      for (const n of next(id).filter((x) => !seen.has(x))) {
        open.push(n);
        seen.add(n);
      }
    }
  };
  const leads = new Map(drains.map((d) => [d.runId, d.leadsTo]));
  const at = (partId: string | null | undefined, end: "from" | "to") =>
    partId && !isTank(partId) ? (runsAt.get(partId) ?? []).filter((r) => r[end].part === partId) : [];
  for (const id of selected) {
    const own = runs.get(id)?.service;
    follow(id, (r) => at(runs.get(r)?.from.part, "to").map((x) => x.id));
    follow(id, (r) => at(runs.get(r)?.to.part, "from").flatMap((x) => (x.service === own ? [x.id] : [])));
    follow(id, (r) => [leads.get(r)].flatMap((x) => (x ? [x] : [])));
  }
  const parts = new Set([...way].flatMap((id) => [runs.get(id)?.from.part, runs.get(id)?.to.part]).flatMap((p) => (p ? [p] : [])));
  for (const t of things) if ("partId" in t) parts.add(t.partId);
  return { runs: way, parts };
}

/** Runs from one on to where its water leaves. */
export function drainRoute(drains: ReadonlyMap<string, Schema["RunDrain"]>, runId: string): string[] {
  const route = [runId];
  for (let next = drains.get(runId)?.leadsTo; next && !route.includes(next); next = drains.get(next)?.leadsTo) route.push(next);
  return route;
}

/** Points one after the other along the way of a run: from where its line begins, through it, on to its drain. A joint counts once. */
export function wayPoints(rig: Rig, runId: string, drained: Schema["RunDrain"][]): { runId: string; pointId: string }[] {
  const { runs, runsAt } = indexOf(rig);
  const drains = new Map(drained.map((d) => [d.runId, d]));
  const route = drainRoute(drains, runId);
  const own = runs.get(runId);
  // Back from the beginning of the run, by what carries the same.
  const before: string[] = [];
  for (let run = own; run && !drains.get(runId)?.reversed; ) {
    const part: string | null | undefined = run.from.part;
    const seen = new Set([...route, ...before]);
    const feeding: typeof run | undefined = part
      ? runsAt.get(part)?.find((r) => r.to.part === part && !seen.has(r.id) && r.service === own?.service)
      : undefined;
    if (feeding) before.unshift(feeding.id);
    run = feeding;
  }
  const points: { runId: string; pointId: string; part: string | null }[] = [];
  for (const id of [...before, ...route]) {
    const run = runs.get(id);
    if (!run) continue;
    const course = courseOf(rig, run).map((p) => p.id);
    if (drains.get(id)?.reversed) course.reverse();
    for (const pointId of course) {
      const part = (pointId === "from" ? run.from.part : pointId === "to" ? run.to.part : null) ?? null;
      if (part === null || part !== points.at(-1)?.part) points.push({ runId: id, pointId, part });
    }
  }
  return points.map(({ runId: run, pointId }) => ({ runId: run, pointId }));
}
