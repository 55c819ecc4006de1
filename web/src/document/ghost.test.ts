import { expect, it } from "vitest";
import { rig } from "../test/rig";
import { drawn } from "./effects";
import { ghostOf } from "./ghost";

it("a ghost is what differs: runs and parts that come, move or go", () => {
  expect(ghostOf(rig, rig)).toEqual({ runs: [], parts: [], gone: [] });

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
  expect(ghostOf(rig, { ...rig, runs: rig.runs.filter((r) => r.id !== run.id) }).gone.map((r) => r.id)).toEqual([run.id]);
});
