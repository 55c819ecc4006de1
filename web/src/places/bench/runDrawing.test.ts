import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { freePorts } from "../../document/geometry";
import { type Frame, toPx } from "../../drawing/projection";
import { rig } from "../../test/rig";
import { createRunDrawing, lastOf, madeOf, placeUnder, type RunDrawing, type Tie, tieAt, usualFor } from "./runDrawing";

const frame: Frame = { width: 400, height: 300, scale: 100, alongM: 1, otherM: 0.5 };
const usual: Schema["UsualRun"][] = [
  { role: "waste", service: "waste", pipe: "waste-28" },
  { role: "outlet", service: "cold", pipe: "pex-1/2" },
];
const stock = new Map<string, Schema["StockPart"]>();
/** Without its lower run: the tank has no pipe. */
const open = { ...rig, runs: rig.runs.filter((r) => r.id !== "lower") };
const loose = (xM: number, yM: number, zM: number): Tie => ({ kind: "loose", at: { xM, yM, zM } });
const drawn = (start: Tie | null, bends: RunDrawing["bends"] = []): RunDrawing => ({
  start,
  bends,
  pointer: null,
  over: null,
  view: null,
  service: null,
  asks: null,
});

describe("a run that is drawn", () => {
  it("carries what was chosen before it began", () => {
    const store = createRunDrawing();
    store.begin(null);
    store.carry("waste");
    store.begin(loose(0, 0, 0.5));
    expect(store.getState().drawing?.service).toBe("waste");
  });

  it("has a name that is cut between whole characters", () => {
    // A family of four is one character of eleven units.
    const family = "\u{1F468}\u200D\u{1F469}\u200D\u{1F467}\u200D\u{1F466}";
    const named = { ...open, parts: open.parts.map((p) => (p.id === "tank" ? { ...p, name: `tank ${family.repeat(7)}` } : p)) };
    const [port] = freePorts(named).filter((p) => p.part === "tank");
    const start: Tie = { kind: "port", partId: "tank", portId: port?.port ?? "", at: port?.at ?? { xM: 0, yM: 0, zM: 0 } };
    const made = madeOf(named, drawn(start), loose(9, 0, 0), stock, usual);
    expect(made?.name).toBe(`tank ${family.repeat(6)}`);
  });

  it("goes back bend by bend, then gives up its start, then the tool is laid down", () => {
    const store = createRunDrawing();
    store.begin(loose(0, 0, 0.5));
    store.bend({ xM: 1, yM: 0, zM: 0.5 });
    const now = () => store.getState().drawing;
    expect(lastOf(now() as RunDrawing)).toEqual({ xM: 1, yM: 0, zM: 0.5 });
    store.back();
    expect(lastOf(now() as RunDrawing)).toEqual({ xM: 0, yM: 0, zM: 0.5 });
    store.back();
    expect(now()?.start).toBeNull();
    store.back();
    expect(now()).toBeNull();
  });

  it("keeps what a view cannot tell, snaps to whole steps, and stays square on demand", () => {
    const last = { xM: 0.5, yM: 0.33, zM: 0.4 };
    const at = toPx("side", frame, { xM: 1.203, yM: 0, zM: 0.642 });
    expect(placeUnder("side", frame, at, last, false, 0.005)).toEqual({ xM: 1.205, yM: 0.33, zM: 0.64 });
    expect(placeUnder("side", frame, at, last, true, 0.005)).toEqual({ xM: 1.205, yM: 0.33, zM: 0.4 });
    const above = toPx("plan", frame, { xM: 0.51, yM: 0.9, zM: 0 });
    expect(placeUnder("plan", frame, above, last, true, 0.005)).toEqual({ xM: 0.5, yM: 0.9, zM: 0.4 });
  });

  it("ends on a free port before a run, and not on the port where it began", () => {
    const inlet = toPx("side", frame, { xM: 2.5, yM: 0, zM: 0.1 });
    const found = tieAt(open, "side", frame, inlet, null);
    expect(found).toMatchObject({ kind: "port", partId: "tank", portId: "in" });
    expect(tieAt(open, "side", frame, inlet, found)).toBeNull();
    // Where a pipe is joined already there is no free port; the pipe itself is there.
    expect(tieAt(rig, "side", frame, inlet, null)).toMatchObject({ kind: "run", runId: "lower" });
    expect(tieAt(rig, "side", frame, { x: -500, y: -500 }, null)).toBeNull();
  });

  it("on a run it puts a tee there, carries what that run carries, and is one list of edits", () => {
    const upper = rig.runs.find((r) => r.id === "upper") as Schema["Run"];
    const bend = upper.bends[0] as Schema["Bend"];
    const near = { xM: bend.at.xM + 0.02, yM: bend.at.yM, zM: bend.at.zM };
    const tie = tieAt(rig, "side", frame, toPx("side", frame, near), null);
    expect(tie?.kind).toBe("run");
    const made = madeOf(rig, drawn(tie, [{ xM: 2, yM: 0, zM: 0.6 }]), loose(2, 0, 1), stock, usual);
    const [tee, add] = (made?.edits ?? []) as unknown as [Schema["EditPutTee"], { kind: string; value: Schema["Run"] }];
    expect(tee).toMatchObject({ kind: "tee", runId: (tie as { runId: string }).runId });
    expect(add.value).toMatchObject({ service: upper.service, from: { part: tee.teeId, port: "c" }, to: { at: { xM: 2, yM: 0, zM: 1 } } });
    expect(add.value.bends).toEqual([{ id: "b1", at: { xM: 2, yM: 0, zM: 0.6 } }]);
    expect(made?.thing).toEqual({ kind: "run", runId: add.value.id });
    // From a run to itself there is nothing to draw.
    expect(madeOf(rig, drawn(tie), tie as Tie, stock, usual)).toBeNull();
  });

  it("is joined to a port on which it ends, however it was led there", () => {
    const [port] = freePorts(open);
    if (!port) throw new Error("no free port");
    const made = madeOf(open, drawn(loose(0, 0, 0), []), { kind: "loose", at: port.at }, stock, usual);
    expect(made?.edits.at(-1)).toMatchObject({ value: { to: { part: port.part, port: port.port } } });
  });

  it("carries what was chosen for it", () => {
    const made = madeOf(open, { ...drawn(loose(0, 0, 0), []), service: "waste" }, loose(1, 0, 0), stock, usual);
    expect(made?.edits.at(-1)).toMatchObject({ value: { service: "waste", pipe: "waste-28" } });
  });

  it("carries what its ports are for: what says more than water leads", () => {
    const parts = [
      { ...rig.parts[0], id: "a", ports: [{ id: "x", offset: { xM: 0, yM: 0, zM: 0 }, role: "outlet" }] },
      { ...rig.parts[0], id: "b", ports: [{ id: "y", offset: { xM: 0, yM: 0, zM: 0 }, role: "waste" }] },
    ] as Schema["Part"][];
    const port = (partId: string, portId: string): Tie => ({ kind: "port", partId, portId, at: { xM: 0, yM: 0, zM: 0 } });
    expect(usualFor({ ...rig, parts, runs: [] }, [port("a", "x"), port("b", "y")], stock, usual)).toEqual({
      service: "waste",
      pipe: "waste-28",
    });
    expect(usualFor({ ...rig, parts, runs: [] }, [port("a", "x"), loose(0, 0, 0)], stock, usual)).toEqual({
      service: "cold",
      pipe: "pex-1/2",
    });
  });
});
