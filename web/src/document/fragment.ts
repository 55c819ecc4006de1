import type { Schema } from "../api/client";
import { indexOf, type Part, portAt, type Rig, type Run, type Xyz } from "./geometry";
import { rounded, type Thing } from "./things";

/** Parts and runs that are carried from one place, or one rig, to another. */
export interface Fragment {
  kind: "warm-conduit-parts";
  name: string;
  rigId: string;
  parts: Part[];
  runs: Run[];
}

/**
 * What is in hand, with the runs that lie between parts of it. What leads to what is not taken along is loose: ends of runs, tape along a line, and the
 * sensor of a pad, which hangs in the air then. Null when there is nothing to carry.
 */
export function fragmentOf(rig: Rig, things: Thing[]): Fragment | null {
  const { parts, runs } = indexOf(rig);
  const taken = new Set(things.flatMap((t) => (t.kind === "part" || t.kind === "port" ? [t.partId] : [])));
  const chosen = new Set(things.flatMap((t) => (t.kind === "run" || t.kind === "point" ? [t.runId] : [])));
  const between = rig.runs.filter((r) => chosen.has(r.id) || (r.from.part && r.to.part && taken.has(r.from.part) && taken.has(r.to.part)));
  const loose = (end: Run["from"]): Run["from"] => {
    if (!end.part || taken.has(end.part)) return end;
    const part = parts.get(end.part);
    return { at: (part && portAt(part, end.port)) ?? { xM: 0, yM: 0, zM: 0 }, part: null, port: null };
  };
  if (taken.size + between.length === 0) return null;
  const along = new Set(between.map((r) => r.id));
  const taped = (run: Run): Run["traces"] => {
    const traces = run.traces?.filter((t) => along.has(t.id)) ?? [];
    return traces.length > 0 ? traces : null;
  };
  const first = [...taken].map((id) => parts.get(id)?.name)[0] ?? runs.get(between[0]?.id ?? "")?.name ?? "";
  const more = taken.size + between.length - 1;
  return {
    kind: "warm-conduit-parts",
    name: more > 0 ? `${first} and ${more} more` : first,
    rigId: rig.id,
    parts: [...taken].flatMap((id) => parts.get(id) ?? []).map((p) => sensing(p, (id) => (taken.has(id) ? id : null))),
    runs: between.map((r) => ({ ...r, from: loose(r.from), to: loose(r.to), traces: taped(r) })),
  };
}

/** The part with the sensor of its pad on another one; in the air of its room where that is nowhere. */
export function sensing(part: Part, where: (partId: string) => string | null): Part {
  const on = part.pad?.sensor?.partId;
  if (!part.pad || on == null) return part;
  const partId = where(on);
  return { ...part, pad: { ...part.pad, sensor: partId ? { kind: "part", partId } : { kind: "room", partId: null } } };
}

/** The edit that puts a fragment in, under ids of its own. */
export function inserted(fragment: Fragment, by: Xyz, newId: (stem: string) => string) {
  const ids = new Map([...fragment.parts, ...fragment.runs].map((t) => [t.id, newId(t.id.replace(/-[0-9a-f]{8}$/, "").slice(0, 44))]));
  const id = (old: string) => ids.get(old) ?? old;
  const moved = (p: Xyz) => rounded({ xM: p.xM + by.xM, yM: p.yM + by.yM, zM: p.zM + by.zM });
  const end = (e: Run["from"]): Run["from"] => (e.at ? { ...e, at: moved(e.at) } : { ...e, part: id(e.part as string) });
  const parts = fragment.parts.map((p) => ({ ...sensing(p, id), id: id(p.id), box: { ...p.box, at: moved(p.box.at) } }));
  const runs = fragment.runs.map((r) => ({
    ...r,
    id: id(r.id),
    from: end(r.from),
    to: end(r.to),
    bends: r.bends.map((b) => ({ ...b, at: moved(b.at) })),
    traces: r.traces?.map((t) => ({ ...t, id: id(t.id) })).sort((a, b) => (a.id < b.id ? -1 : 1)) ?? null,
  }));
  const things: Thing[] = [
    ...parts.map((p) => ({ kind: "part", partId: p.id }) as const),
    ...runs.map((r) => ({ kind: "run", runId: r.id }) as const),
  ];
  return { edits: [{ kind: "fragment", name: fragment.name, parts, runs } as Schema["Edit"]], things };
}

/** A fragment in a text, or null. What it holds is checked by the core like any other edit. */
export function readFragment(text: string): Fragment | null {
  try {
    const made = JSON.parse(text);
    return made?.kind === "warm-conduit-parts" && Array.isArray(made.parts) && Array.isArray(made.runs) ? (made as Fragment) : null;
  } catch {
    return null;
  }
}
