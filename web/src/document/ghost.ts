import { dequal } from "dequal";
import { courseOf, indexOf, type Part, type Rig, type Xyz } from "./geometry";

/** What a change would draw anew: courses of runs that come, move or are insulated, parts likewise, and what goes. */
export interface Ghost {
  runs: { id: string; course: Xyz[] }[];
  parts: Part[];
  gone: { id: string; course: Xyz[] }[];
  /** Rooms that come, or whose faces or openings change. */
  rooms: { id: string; box: Part["box"] }[];
}

/** What differs between two states of a rig, to be drawn over the first. */
export function ghostOf(now: Rig, then: Rig): Ghost {
  const [was, is] = [indexOf(now), indexOf(then)];
  const laid = (rig: Rig, id: string) => {
    const run = indexOf(rig).runs.get(id);
    return run && [courseOf(rig, run).map((p) => p.at), run.insulation, run.bends.map((b) => b.insulation)];
  };
  const body = (p: Part | undefined) => p && [p.box, p.jacket, p.jacketOff];
  return {
    runs: then.runs
      .filter((r) => !dequal(laid(now, r.id), laid(then, r.id)))
      .map((r) => ({ id: r.id, course: courseOf(then, r).map((p) => p.at) })),
    parts: then.parts.filter((p) => !dequal(body(was.parts.get(p.id)), body(p))),
    rooms: then.shell.zones.filter(
      (z) =>
        !dequal(
          now.shell.zones.find((o) => o.id === z.id),
          z,
        ),
    ),
    gone: now.runs.filter((r) => !is.runs.has(r.id)).map((r) => ({ id: r.id, course: courseOf(now, r).map((p) => p.at) })),
  };
}
