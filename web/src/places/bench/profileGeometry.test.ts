import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { drawn } from "../../document/effects";
import { courseOf, heightOver } from "../../document/geometry";
import { movedBy } from "../../document/things";
import { drain, rig } from "../../test/rig";
import { poolLine, type Strip, sameMover, unroll } from "./profileGeometry";

const vessel = { passage: "vessel" } as Schema["StockPart"];
const stock = new Map([["tank", vessel]]);
const around = { rig, stock, bores: new Map([["pex-1/2", 0.0123]]), parked: undefined, answers: { drain, about: rig }, full: false };
const up = (byM: number) => movedBy(rig, [{ kind: "point", runId: "upper", pointId: "b1" }], { xM: 0, yM: 0, zM: byM }, () => false);

describe("the run profile", () => {
  const strip = unroll(around, "upper") as Strip;

  it("lays the run in hand and the runs after it end to end, turning those that are passed backwards", () => {
    expect(strip.points.map((p) => [p.runId, p.pointId])).toEqual([
      ["upper", "from"],
      ["upper", "b1"],
      ["upper", "to"],
      ["lower", "to"],
      ["lower", "from"],
    ]);
    expect(strip.points.map((p) => p.alongM)).toEqual([0, 1.1662, 2.1861, 2.1861, 2.6861].map((m) => expect.closeTo(m, 3)));
    expect(strip.ownM).toBeCloseTo(2.1861, 3);
    expect([strip.lowM, strip.highM]).toEqual([0.1, 0.8]);
  });

  it("signs falls by its own direction, and tells a plumb length", () => {
    expect(strip.lengths.map((l) => l.fall)).toEqual([0.5145, -0.1961, 0.6].map((f) => expect.closeTo(f, 3)));
    const plumb = {
      ...rig,
      runs: rig.runs.map((r) => (r.id === "upper" ? { ...r, bends: [{ id: "b1", at: { xM: 0, yM: 0, zM: 0.2 } }] } : r)),
    };
    expect(unroll({ ...around, rig: plumb }, "upper")?.lengths[0]?.fall).toBeNull();
  });

  it("turns the wet part of a length with the run, leaves it out once the run has moved, and is full when the system is", () => {
    expect(strip.lengths[2]).toMatchObject({ own: false, wetFrom: 0.5, wetTo: 0.75 });
    expect(strip.lengths[0]).toMatchObject({ own: true, wetFrom: 0.67, wetTo: 1, levelM: 0.4 });
    const moved = unroll({ ...around, rig: drawn(rig, up(0.05)) }, "upper") as Strip;
    expect(moved.points[1]?.heightM).toBeCloseTo(0.25);
    expect(moved.lengths[0]).toMatchObject({ wetFrom: 0, wetTo: 0 });
    expect(moved.lengths[2]).toMatchObject({ wetFrom: 0.5, wetTo: 0.75 });
    expect(unroll({ ...around, full: true }, "upper")?.lengths.every((l) => l.wetFrom === 0 && l.wetTo === 1)).toBe(true);
  });

  it("stands as the vehicle is parked, by the core's rule, with its floor and its tanks", () => {
    const parked = { pitchDeg: 4, rollDeg: -2 };
    const tipped = unroll({ ...around, parked }, "upper") as Strip;
    const at = (courseOf(rig, rig.runs[0] as Schema["Run"])[1] as { at: Schema["Point3"] }).at;
    expect(tipped.points[1]?.heightM).toBeCloseTo(0.2 + Math.tan((4 * Math.PI) / 180));
    expect(tipped.points[1]?.heightM).toBe(heightOver(parked, at));
    expect(tipped.points[1]?.builtM).toBe(0.2);
    expect(strip.bodies).toMatchObject([{ kind: "tank", name: "tank", lowM: 0 }]);
  });

  it("draws the level of the run's largest pool from its water to its crest", () => {
    const line = poolLine(strip, drain.pools, "upper");
    expect(line).toMatchObject({ levelM: 0.4, crest: "the tee" });
    expect(line?.toM).toBeCloseTo(strip.ownM);
    expect(line?.fromM).toBeCloseTo(0.67 * 1.1662, 3);
    expect(poolLine(strip, drain.pools, "lower")).toBeNull();
  });

  it("lets bends and small parts be pulled, and tanks not but with a reason", () => {
    const movers = strip.points.map((p) => p.mover);
    expect(movers[0]).toEqual({ kind: "part", partId: "tap" });
    expect(movers[1]).toEqual({ kind: "point", runId: "upper", pointId: "b1" });
    expect(sameMover(movers[2] ?? null, movers[3] ?? null)).toBe(true);
    expect(movers[4]).toBeNull();
    expect(strip.points[4]?.fixed).toContain("tank");
  });

  it("is nothing for a run that is not there, and a run alone while nothing is answered", () => {
    expect(unroll(around, "nowhere")).toBeNull();
    expect(unroll({ ...around, answers: null }, "lower")?.points).toHaveLength(2);
  });
});

describe("moving", () => {
  it("moves a bend, or a part with everything that meets there, each once, to the tenth of a millimetre", () => {
    const bend = drawn(rig, up(0.0512345));
    expect(bend.runs[0]?.bends[0]?.at).toEqual({ xM: 1, yM: 0, zM: 0.2512 });
    expect(bend.parts).toBe(rig.parts);
    const ends = [
      { kind: "point", runId: "upper", pointId: "to" },
      { kind: "part", partId: "tee" },
    ] as const;
    const edits = movedBy(rig, [...ends], { xM: 0.1, yM: 0, zM: -0.1 }, () => false);
    expect(edits).toHaveLength(1);
    expect(drawn(rig, edits).parts[1]?.box.at).toEqual({ xM: 2.1, yM: 0, zM: 0.3 });
    expect(rig.parts[1]?.box.at.zM).toBe(0.4);
  });
});
