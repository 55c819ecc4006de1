import { courseOf, indexOf, type Part, type Rig, type Xyz } from "./geometry";

/** What a change would draw anew: courses of runs that come or move, parts that come or move, and what goes. */
export interface Ghost {
  runs: { id: string; course: Xyz[] }[];
  parts: Part[];
  gone: { id: string; course: Xyz[] }[];
}

/** What differs between two states of a rig, to be drawn over the first. */
export function ghostOf(now: Rig, then: Rig): Ghost {
  const [was, is] = [indexOf(now), indexOf(then)];
  const text = (rig: Rig, id: string) => {
    const run = indexOf(rig).runs.get(id);
    return run ? JSON.stringify(courseOf(rig, run).map((p) => p.at)) : "";
  };
  return {
    runs: then.runs
      .filter((r) => text(now, r.id) !== text(then, r.id))
      .map((r) => ({ id: r.id, course: courseOf(then, r).map((p) => p.at) })),
    parts: then.parts.filter((p) => JSON.stringify(was.parts.get(p.id)?.box) !== JSON.stringify(p.box)),
    gone: now.runs.filter((r) => !is.runs.has(r.id)).map((r) => ({ id: r.id, course: courseOf(now, r).map((p) => p.at) })),
  };
}
