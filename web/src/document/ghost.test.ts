import { expect, it } from "vitest";
import { rig } from "../test/rig";
import { drawn } from "./effects";
import { ghostOf } from "./ghost";

it("a ghost is what differs: runs and parts that come, move or go", () => {
  expect(ghostOf(rig, rig)).toEqual({ runs: [], parts: [], gone: [], rooms: [] });

  const [run] = rig.runs.filter((r) => r.bends.length > 0);
  const [part] = rig.parts;
  if (!run || !part) throw new Error("The rig has runs and parts.");
  const bends = run.bends.map((b) => ({ ...b, at: { ...b.at, zM: b.at.zM + 0.1 } }));
  const bent = drawn(rig, [{ kind: "change", thing: `runs/${run.id}`, values: { bends } } as never]);
  expect(ghostOf(rig, bent).runs.map((r) => r.id)).toEqual([run.id]);
  expect(ghostOf(rig, bent).runs[0]?.course[1]?.zM).toBeCloseTo((run.bends[0]?.at.zM ?? 0) + 0.1);

  // What a run meets moves its end.
  const moved = {
    ...rig,
    parts: rig.parts.map((p) => (p.id === part.id ? { ...p, box: { ...p.box, at: { ...p.box.at, xM: p.box.at.xM + 0.2 } } } : p)),
  };
  const ghost = ghostOf(rig, moved);
  expect(ghost.parts.map((p) => p.id)).toEqual([part.id]);
  expect(ghost.runs.map((r) => r.id).sort()).toEqual(
    rig.runs
      .filter((r) => r.from.part === part.id || r.to.part === part.id)
      .map((r) => r.id)
      .sort(),
  );
  // What is insulated is shown where it lies, and the room whose faces or openings change.
  const sleeved = {
    ...rig,
    runs: rig.runs.map((r) => (r.id === run.id ? { ...r, insulation: { material: "elastomer", thicknessM: 0.02 } } : r)),
  };
  expect(ghostOf(rig, sleeved).runs.map((r) => r.id)).toEqual([run.id]);
  const jacketed = {
    ...rig,
    parts: rig.parts.map((p) => (p.id === part.id ? { ...p, jacket: { material: "xps", thicknessM: 0.02 } } : p)),
  };
  expect(ghostOf(rig, jacketed).parts.map((p) => p.id)).toEqual([part.id]);
  const room = { id: "room", name: "room", kind: "living", box: part.box, airChangesPerHour: 1, faces: [], openings: [] } as const;
  const draughty = { ...rig, shell: { ...rig.shell, zones: [{ ...room, faces: [], openings: [] }] } };
  expect(ghostOf(rig, draughty).rooms.map((z) => z.id)).toEqual([room.id]);

  expect(ghostOf(rig, { ...rig, runs: rig.runs.filter((r) => r.id !== run.id) }).gone.map((r) => r.id)).toEqual([run.id]);
});
