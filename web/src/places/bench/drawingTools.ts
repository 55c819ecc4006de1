import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { added, changed, nameCut } from "../../document/edits";
import { sensing } from "../../document/fragment";
import { courseOf, type Rig, type Run, towards, type Xyz } from "../../document/geometry";
import { rounded, type Thing } from "../../document/things";

type Edit = Schema["Edit"];

const SPOT_STEP = 0.05;
const SPOT_STEPS = 40;

/** The nearest place to `wanted`, at its height, where a box of this size touches no part and nothing solid; `wanted` itself where there is none. */
export function freeSpot(rig: Rig, size: Xyz, wanted: Xyz): Xyz {
  const solids = [...rig.parts.map((p) => p.box), ...rig.shell.obstacles.map((o) => o.box)];
  const free = (at: Xyz) =>
    solids.every((b) =>
      (["xM", "yM", "zM"] as const).some((a) => at[a] >= b.at[a] + b.size[a] - 1e-6 || at[a] + size[a] <= b.at[a] + 1e-6),
    );
  const { body } = rig.shell;
  const inside = (at: Xyz) =>
    (["xM", "yM"] as const).every((a) => at[a] >= body.at[a] - 1e-6 && at[a] + size[a] <= body.at[a] + body.size[a] + 1e-6);
  for (let ring = 0; ring <= SPOT_STEPS; ring++)
    for (let i = -ring; i <= ring; i++)
      for (const j of Math.abs(i) === ring ? Array.from({ length: 2 * ring + 1 }, (_, n) => n - ring) : [-ring, ring]) {
        const at = { ...wanted, xM: wanted.xM + i * SPOT_STEP, yM: wanted.yM + j * SPOT_STEP };
        if (free(at) && (inside(at) || ring === 0)) return at;
      }
  return wanted;
}

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
  const value = { ...sensing(part, () => null), id, box: { ...part.box, at: rounded(at) } };
  return { edits: [added("parts", value)], thing: { kind: "part", partId: id } };
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
  // At a bend it stands in the bend's place; at an end in the leg beside it.
  const bend = run.bends.findIndex((b) => b.id === pointId);
  const route = { kind: "route", runId: run.id, bends: run.bends.filter((b) => b.id !== pointId) };
  const edit = {
    kind: "tee",
    runId: run.id,
    after: bend >= 0 ? (run.bends[bend - 1]?.id ?? null) : after(run, pointId),
    at: run.bends[bend]?.at ?? halfWay(rig, run, pointId),
    teeId,
    teeName: nameCut(`tee, ${run.name}`),
    newRunId: newId("run"),
  };
  return { edits: [...(bend >= 0 ? [route as Edit] : []), edit as Edit], thing: { kind: "part", partId: teeId } };
}

/** A run with a bend more, in the leg after point number `leg` of its course. */
export function bentAt(run: Run, leg: number, id: string, at: Xyz): Edit {
  return changed(`runs/${run.id}`, { bends: run.bends.toSpliced(leg, 0, { id, at: rounded(at), insulation: null, fixing: null }) });
}
