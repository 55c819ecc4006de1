import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { drawn } from "../../document/effects";
import { drain, rig } from "../../test/rig";
import { raised } from "./benchStore";
import { poolLine, sameHandle, unroll } from "./stripGeometry";

const vessel = { passage: "vessel" } as Schema["StockPart"];
const stock = new Map([["tank", vessel]]);

describe("the fall strip", () => {
  const strip = unroll(rig, stock, drain, "upper");

  it("lays the chosen run and the runs after it end to end, turning those that are passed backwards", () => {
    expect(strip?.points.map((p) => [p.runId, p.pointId, p.alongM])).toEqual([
      ["upper", "from", 0],
      ["upper", "b1", 1.2],
      ["upper", "to", 2.2],
      ["lower", "to", 2.2],
      ["lower", "from", 2.7],
    ]);
    expect(strip?.lengthM).toBeCloseTo(2.7);
    expect([strip?.lowM, strip?.highM]).toEqual([0.1, 0.8]);
  });

  it("turns the wet part of a length with the run", () => {
    const [, , last] = strip?.lengths ?? [];
    expect(last).toMatchObject({ own: false, wetFrom: 0.5, wetTo: 0.75, fall: 0.6 });
    expect(strip?.lengths[0]).toMatchObject({ own: true, wetFrom: 0.67, wetTo: 1, levelM: 0.4 });
  });

  it("draws the level of the chosen run's largest pool from its water to its crest", () => {
    const own = strip as NonNullable<typeof strip>;
    const line = poolLine(own, drain.pools, "upper");
    expect(line).toMatchObject({ levelM: 0.4, toM: 2.2, crest: "the tee" });
    expect(line?.fromM).toBeCloseTo(0.67 * 1.2);
    const [pool] = drain.pools as [(typeof drain.pools)[number]];
    const beyond = { ...pool, crest: { ...pool.lowest, runId: "lower", pointId: "from", words: "Lower, end" } };
    expect(poolLine(own, [beyond], "upper")).toMatchObject({ toM: 2.7, crest: "Lower, end" });
    expect(poolLine(own, drain.pools, "lower")).toBeNull();
  });

  it("gives bends and small parts a handle, and tanks none but a reason", () => {
    const handles = strip?.points.map((p) => p.handle);
    expect(handles?.[0]).toEqual({ kind: "part", partId: "tap" });
    expect(handles?.[1]).toEqual({ kind: "bend", runId: "upper", bendId: "b1" });
    expect(sameHandle(handles?.[2] ?? null, handles?.[3] ?? null)).toBe(true);
    expect(handles?.[4]).toBeNull();
    expect(strip?.points[4]?.fixed).toContain("tank");
  });

  it("is nothing for a run that is not there", () => {
    expect(unroll(rig, stock, drain, "nowhere")).toBeNull();
  });
});

describe("raising", () => {
  it("moves a bend, or a part with everything that meets there, to the tenth of a millimetre", () => {
    const bend = drawn(rig, [raised(rig, { kind: "bend", runId: "upper", bendId: "b1" }, 0.0512345)]);
    expect(bend.runs[0]?.bends[0]?.at).toEqual({ xM: 1, yM: 0, zM: 0.2512 });
    expect(bend.parts).toBe(rig.parts);
    const tee = drawn(rig, [raised(rig, { kind: "part", partId: "tee" }, -0.1)]);
    expect(tee.parts[1]?.box.at.zM).toBe(0.3);
    expect(tee.parts[0]).toBe(rig.parts[0]);
    expect(rig.parts[1]?.box.at.zM).toBe(0.4);
  });
});
