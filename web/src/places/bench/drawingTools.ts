import type { Schema } from "../../api/client";
import { changed } from "../../document/edits";
import { courseOf, type Rig, type Run, towards, type Xyz } from "../../document/geometry";
import { rounded, type Thing } from "../../document/things";

type Edit = Schema["Edit"];

/** What can be done in one step with what is in hand. Ids of new things are random and come with the edit. */
export const newId = (stem: string) => `${stem}-${crypto.randomUUID().slice(0, 8)}`;

interface Made {
  edits: Edit[];
  /** What is in hand then. */
  thing: Thing;
}

export function place(stock: Schema["StockPart"], at: Xyz): Made {
  const partId = newId(stock.id.replace(/[^a-z0-9-]/g, "-").slice(0, 40));
  return {
    edits: [{ kind: "place", partId, stock: stock.id, name: stock.name, at: rounded(at) } as Edit],
    thing: { kind: "part", partId },
  };
}

export const placeSet = (set: Schema["PartSet"], at: Xyz): Edit[] => [
  { kind: "placeSet", setId: set.id, stem: newId(set.id.slice(0, 28)), at: rounded(at) } as Edit,
];

/** A part of the builder's own, as it is in the rig that it comes from. */
export function placeOwn(part: Schema["Part"], at: Xyz): Made {
  const id = newId(part.stock.replace(/[^a-z0-9-]/g, "-").slice(0, 40));
  const value = { ...part, id, box: { ...part.box, at: rounded(at) } };
  return { edits: [{ kind: "add", list: "parts", value } as unknown as Edit], thing: { kind: "part", partId: id } };
}

export function copyOf(part: Schema["Part"]): Made {
  const id = newId(part.stock.replace(/[^a-z0-9-]/g, "-").slice(0, 40));
  return {
    edits: [{ kind: "copy", partId: part.id, newId: id, name: part.name, by: { xM: 0.2, yM: 0, zM: 0 } } as Edit],
    thing: { kind: "part", partId: id },
  };
}

const after = (run: Run, pointId: string) => (pointId === "from" ? null : pointId === "to" ? (run.bends.at(-1)?.id ?? null) : pointId);

/** Half way from a point to the next one, or to the one before at the run's end. */
function halfWay(rig: Rig, run: Run, pointId: string): Xyz {
  const course = courseOf(rig, run);
  const i = course.findIndex((p) => p.id === pointId);
  const other = course[i + 1] ?? course[i - 1] ?? course[i];
  return rounded(towards((course[i] as { at: Xyz }).at, (other as { at: Xyz }).at, 0.5));
}

/** A point more in the leg after another: a bend, or one that is only held. */
export function bendAfter(rig: Rig, run: Run, pointId: string, fixing: Schema["Fixing"] | null = null): Made {
  const id = newId("b");
  return {
    edits: [
      { kind: "insertBend", runId: run.id, bend: { id, at: halfWay(rig, run, pointId), fixing }, after: after(run, pointId) } as Edit,
    ],
    thing: { kind: "point", runId: run.id, pointId: id },
  };
}

export function teeAfter(rig: Rig, run: Run, pointId: string): Made {
  const teeId = newId("tee");
  const edit = {
    kind: "tee",
    runId: run.id,
    after: after(run, pointId),
    at: halfWay(rig, run, pointId),
    teeId,
    teeName: `tee, ${run.name}`.slice(0, 80),
    newRunId: newId("run"),
  };
  return { edits: [edit as Edit], thing: { kind: "part", partId: teeId } };
}

/** A run with a bend more, in the leg after point number `leg` of its course. */
export function bentAt(run: Run, leg: number, id: string, at: Xyz): Edit {
  return changed(`runs/${run.id}`, { bends: run.bends.toSpliced(leg, 0, { id, at: rounded(at), insulation: null, fixing: null }) });
}
