import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { drawn } from "../document/effects";
import { indexOf, middleOf, plumbingOf, type Rig } from "../document/geometry";
import { movedBy } from "../document/things";
import { drain, rig } from "../test/rig";
import { eyeOf } from "./corner";
import { paint, type Waters } from "./cornerPaint";
import { type CornerScene, sceneOf, sceneWith } from "./cornerScene";

const look = (p: Schema["Part"]) => (p.stock === "tee" ? ("joint" as const) : ("body" as const));
const eye = (tipDeg: number) => eyeOf({ turnDeg: 62, tipDeg, scale: 100, middle: middleOf(plumbingOf(rig)), width: 400, height: 300 });
const waters: Waters = {
  lens: "drain",
  drains: new Map(drain.runs.map((r) => [r.runId, r])),
  shares: new Map([["tank", 0.5]]),
  rungs: new Map(),
  pieces: new Map(),
  numbers: { nearFreezingC: 4, warmC: 25, hotC: 45, holdC: 5, hottestOutletC: 49, dryRunL: 0 },
  current: () => true,
  fine: true,
  quick: false,
  again: false,
  chosenRuns: new Set(),
  chosenParts: new Set(),
};
const under: Rig = {
  ...rig,
  parts: rig.parts.map((p) => (p.id === "tank" ? { ...p, box: { ...p.box, at: { ...p.box.at, zM: -0.4 } } } : p)),
};
const owners = (scene: CornerScene, shown: Rig, tipDeg = 27) =>
  paint(shown, scene, [], eye(tipDeg), waters).order.map((p) => (p.key.kind === "part" ? p.key.part.id : p.key.run.id));

describe("the picture from a corner", () => {
  it("puts what is under the floor behind it from above, and before it from below", () => {
    const scene = sceneOf(under, look);
    expect(owners(scene, under).indexOf("tank")).toBe(0);
    const below = owners(scene, under, -30);
    expect(below.indexOf("tank")).toBeGreaterThan(below.indexOf("tap"));
  });

  it("shows water that stays where it stands, while the answers are about the run as it lies", () => {
    const wet = (w: Waters) => paint(rig, sceneOf(rig, look), [], eye(27), w).paths.filter((p) => p.style.stroke === "var(--stays)");
    expect(wet(waters).length).toBeGreaterThan(0);
    expect(wet({ ...waters, current: () => false })).toEqual([]);
    // A tank that is half full is filled half as high.
    expect(paint(rig, sceneOf(rig, look), [], eye(27), waters).paths.some((p) => p.style.fill === "var(--stays)")).toBe(true);
  });

  it("leaves out gaps and shading while it turns, and has all of them at rest", () => {
    const scene = sceneOf(rig, look);
    const count = (w: Partial<Waters>) => paint(rig, scene, [], eye(27), { ...waters, ...w }).paths.length;
    expect(count({ fine: false, quick: true })).toBeLessThan(count({}));
  });

  it("draws what is being moved where it is, over the rest, and nothing where it was", () => {
    const whole = sceneOf(rig, look);
    const moved = drawn(
      rig,
      movedBy(rig, [{ kind: "part", partId: "tee" }], { xM: 0, yM: 0, zM: 0.2 }, () => false),
    );
    const scene = sceneWith(whole, moved, look);
    const shown = owners(scene, moved);
    // The part and every run that meets it, each once, last of all.
    expect(new Set(scene.loose.map((p) => (p.key.kind === "part" ? p.key.part.id : p.key.run.id)))).toEqual(
      new Set(["tee", "upper", "lower"]),
    );
    expect(shown.filter((id) => id === "tee")).toHaveLength(1);
    expect(shown.slice(-scene.loose.length)).not.toContain("tap");
    const tee = scene.loose.find((p) => p.key.kind === "part");
    expect(tee?.low.zM).toBeCloseTo((indexOf(moved).parts.get("tee")?.box.at.zM ?? 0) + 0.05);
    expect(sceneWith(whole, rig, look)).toBe(whole);
    const removed = { ...rig, runs: [] };
    expect(owners(sceneWith(whole, removed, look), removed)).not.toContain("upper");
  });
});
