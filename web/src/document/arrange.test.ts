import { describe, expect, it } from "vitest";
import { rig } from "../test/rig";
import { graded, measured, mirrored } from "./arrange";
import { fragmentOf, inserted, readFragment } from "./fragment";
import type { Thing } from "./things";

const tap: Thing = { kind: "part", partId: "tap" };
const tee: Thing = { kind: "part", partId: "tee" };
const tank: Thing = { kind: "part", partId: "tank" };
const bend: Thing = { kind: "point", runId: "upper", pointId: "b1" };

describe("arranging", () => {
  it("asks for heights of what has one: a run alone by its points, of several things those with a place", () => {
    const run: Thing = { kind: "run", runId: "upper" };
    expect(graded([run], "even")).toEqual([{ kind: "grade", things: ["runs/upper"], grading: "even" }]);
    expect(graded([tap, run, bend, tank], "even")).toMatchObject([{ things: ["parts/tap", "runs/upper/bends/b1", "parts/tank"] }]);
    expect(graded([tap, tee], "even")).toEqual([]);
    expect(graded([tap, tee], "level")).toHaveLength(1);
  });

  it("measures along, across, up and straight, with the fall", () => {
    expect(measured(rig, tap, tee)).toMatchObject({ along: 2, across: 0, fall: expect.closeTo(0.4 / Math.hypot(2, 0.4)) });
    expect(measured(rig, tap, tee)?.up).toBeCloseTo(-0.4);
    expect(measured(rig, tap, tee)?.straight).toBeCloseTo(Math.hypot(2, 0.4));
    expect(measured(rig, tap, { kind: "run", runId: "upper" })).toBeNull();
  });

  it("puts a part and the bends of a run on the other side", () => {
    // The body is 2 m wide, the part 0.1 m.
    expect(mirrored(rig, [tap, { kind: "run", runId: "upper" }])).toMatchObject([
      { kind: "mirror", partId: "tap", axis: "y" },
      { kind: "move", things: ["parts/tap"], by: { yM: 1.9 } },
      { kind: "move", things: ["runs/upper/bends/b1"], by: { yM: 2 } },
    ]);
  });
});

describe("carrying", () => {
  it("takes the runs between parts along, and leaves an end loose whose part stays behind", () => {
    const both = fragmentOf(rig, [tap, tee]);
    expect(both?.runs.map((r) => r.id)).toEqual(["upper"]);
    const one = fragmentOf(rig, [tap, { kind: "run", runId: "upper" }]);
    expect(one?.runs[0]?.from.part).toBe("tap");
    expect(one?.runs[0]?.to).toMatchObject({ at: { xM: 2, yM: 0, zM: 0.4 }, part: null });
    expect(fragmentOf(rig, [])).toBeNull();
  });

  it("lets go of tape along a line and of a sensor on a part that stay behind, and keeps both where they come along", () => {
    const pad = { powerW: 40, onC: 7, offC: 18, supply: "battery", areaM2: 0.06, sensor: { kind: "part", partId: "tee" } };
    const parts = rig.parts.map((p) => (p.id === "tap" ? { ...p, pad } : p));
    const line = rig.runs.find((r) => r.id === "upper");
    const runs = [...rig.runs, { ...line, id: "trace", traces: [{ id: "upper", kind: "plain" }] }];
    const taped = { ...rig, parts, runs } as unknown as typeof rig;
    const alone = fragmentOf(taped, [tap]);
    expect(alone?.parts[0]?.pad?.sensor).toEqual({ kind: "room", partId: null });
    expect(fragmentOf(taped, [{ kind: "run", runId: "trace" }])?.runs[0]?.traces).toBeNull();
    const all = fragmentOf(taped, [tap, tee]);
    if (!all) throw new Error("there is nothing to carry");
    const put = inserted(all, { xM: 0, yM: 0, zM: 0 }, (stem) => `${stem}-2`).edits[0] as {
      parts: typeof rig.parts;
      runs: typeof rig.runs;
    };
    expect(put.parts.find((p) => p.id === "tap-2")?.pad?.sensor).toEqual({ kind: "part", partId: "tee-2" });
    expect(put.runs.find((r) => r.id === "trace-2")?.traces).toEqual([{ id: "upper-2", kind: "plain" }]);
  });

  it("puts it in under ids of its own, as far away as is asked", () => {
    const kept = readFragment(JSON.stringify(fragmentOf(rig, [tap, tee])));
    if (!kept) throw new Error("it cannot be read");
    let n = 0;
    const { edits, things } = inserted(kept, { xM: 0.2, yM: 0, zM: 0 }, (stem) => `${stem}-${++n}`);
    expect(things.map((t) => t.kind)).toEqual(["part", "part", "run"]);
    expect(edits).toMatchObject([
      {
        kind: "fragment",
        parts: [{ id: "tap-1", box: { at: { xM: 0.2 } } }, { id: "tee-2" }],
        runs: [{ id: "upper-3", from: { part: "tap-1", port: "cold" }, to: { part: "tee-2", port: "a" }, bends: [{ at: { xM: 1.2 } }] }],
      },
    ]);
    expect(readFragment("a shopping list")).toBeNull();
    expect(readFragment('{"kind":"other"}')).toBeNull();
  });
});
