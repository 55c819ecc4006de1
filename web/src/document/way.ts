import type { Schema } from "../api/client";
import { indexOf, type Rig } from "./geometry";
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
