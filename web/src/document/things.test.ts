import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { rig } from "../test/rig";
import { boxAround, courseOf, freePorts, lengthOf, plumbingOf, type Rig } from "./geometry";
import { extentOf, isThere, movedBy, moverOf, nameOf, placeOf, putAt, type Thing } from "./things";

const loose: Rig = { ...rig, runs: [{ ...(rig.runs[0] as Schema["Run"]), to: { at: { xM: 3, yM: 0, zM: 0.3 } } }] };
const bend: Thing = { kind: "point", runId: "upper", pointId: "b1" };
const end: Thing = { kind: "point", runId: "upper", pointId: "to" };
const fixed = (partId: string) => partId === "tank";

describe("things", () => {
  it.each<[Thing, string]>([
    [{ kind: "run", runId: "upper" }, "upper"],
    [bend, "upper, bend 1"],
    [end, "upper, at tee"],
    [{ kind: "part", partId: "tee" }, "tee"],
    [{ kind: "port", partId: "tee", portId: "b" }, "tee, port b"],
  ])("have a name in the builder's words", (thing, name) => {
    expect(nameOf(rig, thing)).toBe(name);
    expect(isThere(rig, thing)).toBe(true);
    expect(isThere({ ...rig, runs: [], parts: [] }, thing)).toBe(false);
  });

  it("say that an end is loose, and where it is", () => {
    expect(nameOf(loose, end)).toBe("upper, loose end");
    expect(placeOf(loose, end)).toEqual({ xM: 3, yM: 0, zM: 0.3 });
    expect(putAt(loose, end, { xM: 1, yM: 2, zM: 3.00004 })).toEqual({
      kind: "change",
      thing: "runs/upper",
      values: { to: { at: { xM: 1, yM: 2, zM: 3 } } },
    });
  });

  it("are joined to a free port that they are led to exactly, and to no other", () => {
    const [port] = freePorts(loose);
    if (!port) throw new Error("no free port");
    expect(putAt(loose, end, { ...port.at, zM: port.at.zM + 0.003 })).toEqual({
      kind: "change",
      thing: "runs/upper",
      values: { to: { part: port.part, port: port.port } },
    });
    expect(putAt(loose, end, { ...port.at, zM: port.at.zM + 0.02 })).toMatchObject({ values: { to: { at: {} } } });
  });

  it("move with what they are joined to, and stay where that is fixed", () => {
    expect(moverOf(rig, bend, fixed)).toEqual(bend);
    expect(moverOf(rig, end, fixed)).toEqual({ kind: "part", partId: "tee" });
    expect(moverOf(rig, { kind: "port", partId: "tee", portId: "a" }, fixed)).toEqual({ kind: "part", partId: "tee" });
    expect(moverOf(rig, { kind: "point", runId: "lower", pointId: "from" }, fixed)).toBeNull();
    // The tank itself is moved by whoever takes it.
    expect(moverOf(rig, { kind: "part", partId: "tank" }, fixed)).toEqual({ kind: "part", partId: "tank" });
    expect(moverOf(rig, { kind: "run", runId: "upper" }, fixed)).toBeNull();
  });

  it("that are runs move with their bends, and leave what they meet", () => {
    const edits = movedBy(rig, [{ kind: "run", runId: "upper" }], { xM: 0, yM: 0, zM: 0.1 }, fixed);
    expect(edits).toEqual([{ kind: "change", thing: "runs/upper/bends/b1", values: { at: { xM: 1, yM: 0, zM: 0.3 } } }]);
  });

  it("are seen where they are", () => {
    expect(extentOf(rig, { kind: "run", runId: "upper" })).toHaveLength(3);
    expect(extentOf(rig, { kind: "part", partId: "tap" })[0]?.zM).toBeCloseTo(0.85);
    expect(extentOf(rig, { kind: "run", runId: "ghost" })).toEqual([]);
  });
});

describe("geometry", () => {
  it("keeps a run's course as one object until the run or what it meets has moved", () => {
    const [upper, lower] = rig.runs as [Schema["Run"], Schema["Run"]];
    const again = { ...rig, name: "another" };
    expect(courseOf(again, upper)).toBe(courseOf(rig, upper));
    const parts = rig.parts.map((p) => (p.id === "tee" ? { ...p, box: { ...p.box, at: { ...p.box.at, zM: 0.5 } } } : p));
    const before = courseOf(rig, lower);
    expect(courseOf({ ...rig, parts }, lower)).not.toBe(before);
    expect(lengthOf(courseOf(rig, lower))).toBeCloseTo(0.5);
  });

  it("frames the plumbing, or the body while there is none", () => {
    expect(plumbingOf({ ...rig, parts: [], runs: [] })).toBe(rig.shell.body);
    const seen = plumbingOf(rig, 0);
    expect([seen.at.xM, seen.at.xM + seen.size.xM]).toEqual([0, 2.6].map((m) => expect.closeTo(m)));
    expect(boxAround([{ xM: 1, yM: 2, zM: 3 }], 0.5)).toEqual({ at: { xM: 0.5, yM: 1.5, zM: 2.5 }, size: { xM: 1, yM: 1, zM: 1 } });
  });
});
