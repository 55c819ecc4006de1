import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { drawn } from "../document/effects";
import { indexOf, middleOf, plumbingOf, type Rig } from "../document/geometry";
import { movedBy } from "../document/things";
import { drain, rig } from "../test/rig";
import { type Brush, CanvasBrush, PathBrush, type Style } from "./brushes";
import { eyeOf } from "./corner";
import { CornerPicture, paintTurning } from "./cornerPaint";
import type { Waters } from "./cornerRuns";
import { type CornerScene, divideHeap, heapOf, sceneOf as named, sceneWith } from "./cornerScene";

const look = (p: Schema["Part"]) => (p.stock === "tee" ? ("joint" as const) : ("body" as const));
const eye = (tipDeg: number) => eyeOf({ turnDeg: 62, tipDeg, scale: 100, middle: middleOf(plumbingOf(rig)), width: 400, height: 300 });
const waters: Waters = {
  lens: "drain",
  way: null,
  drains: new Map(drain.runs.map((r) => [r.runId, r])),
  shares: new Map([["tank", 0.5]]),
  rungs: new Map(),
  pieces: new Map(),
  numbers: { nearFreezingC: 4, warmC: 25, hotC: 45, holdC: 5, hottestOutletC: 49, dryRunL: 0, farthestM: 30 },
  current: () => true,
  chosenRuns: new Set(),
  chosenParts: new Set(),
};
const under: Rig = {
  ...rig,
  parts: rig.parts.map((p) => (p.id === "tank" ? { ...p, box: { ...p.box, at: { ...p.box.at, zM: -0.4 } } } : p)),
};
const sceneOf = (of: Rig, lookOf: typeof look) => {
  const { owners, heap } = heapOf(of, lookOf);
  return named(of, owners, divideHeap(heap));
};
const paint = (shown: Rig, scene: CornerScene, w = waters, tipDeg = 27) =>
  new CornerPicture(eye(tipDeg), true, waters.numbers).paint(shown, scene, [], w);
const owners = (scene: CornerScene, shown: Rig, tipDeg = 27) =>
  paint(shown, scene, waters, tipDeg).order.map((p) => (p.key.kind === "part" ? p.key.part.id : p.key.run.id));

describe("the picture from a corner", () => {
  it("puts what is under the floor behind it from above, and before it from below", () => {
    const scene = sceneOf(under, look);
    expect(owners(scene, under).indexOf("tank")).toBe(0);
    const below = owners(scene, under, -30);
    expect(below.indexOf("tank")).toBeGreaterThan(below.indexOf("tap"));
  });

  it("shows water left where it stands, while the answers are about the run as it lies", () => {
    const wet = (w: Waters) => paint(rig, sceneOf(rig, look), w).paths.filter((p) => p.style.stroke === "var(--stays)");
    expect(wet(waters).length).toBeGreaterThan(0);
    expect(wet({ ...waters, current: () => false })).toEqual([]);
    // A tank that is half full is filled half as high.
    expect(paint(rig, sceneOf(rig, look)).paths.some((p) => p.style.fill === "var(--stays)")).toBe(true);
  });

  it("leaves out gaps and shading while it turns, and has all of them at rest", () => {
    const scene = sceneOf(rig, look);
    const turning = new PathBrush();
    paintTurning(turning, rig, scene, [], eye(27), waters);
    expect(turning.paths.length).toBeLessThan(paint(rig, scene).paths.length);
    expect(turning.paths.some((p) => p.style.stroke === "var(--stays)")).toBe(true);
  });

  it("paints on a canvas what it paints as paths, in the colours of the page", () => {
    const scene = sceneOf(rig, look);
    const seen: string[] = [];
    const fake = new Proxy({} as Record<string, unknown>, {
      get: (on, name: string) =>
        name in on ? on[name] : () => name === "stroke" && seen.push(`${on.strokeStyle} ${on.lineWidth} ${on.globalAlpha}`),
    }) as unknown as CanvasRenderingContext2D;
    const brush = new CanvasBrush(fake, (name) => `rgb(${name})`);
    paintTurning(brush, rig, scene, [], eye(27), waters);
    brush.end();
    const asked: string[] = [];
    let last = "";
    // Lines of one style in a row are one stroke.
    const ask = (style: Style) => {
      const key = JSON.stringify(style);
      const joined = style.fill === "none" && style.opacity === undefined && key === last;
      if (style.stroke !== "none" && style.width > 0 && !joined) asked.push(`${style.stroke} ${style.width} ${style.opacity ?? 1}`);
      last = key;
    };
    const paths: Brush = { lines: ask, ring: ask };
    paintTurning(paths, rig, scene, [], eye(27), waters);
    expect(asked.length).toBeGreaterThan(10);
    const hatched = (text: string) => text.replace(/^rgb\((.*)\)/, "var($1)");
    expect(seen.map(hatched).filter((s) => !s.includes("--strong"))).toEqual(asked.filter((s) => !s.includes("--strong")));
  });

  it("paints anew only what has changed", () => {
    const scene = sceneOf(rig, look);
    const picture = new CornerPicture(eye(27), true, waters.numbers);
    const before = picture.paint(rig, scene, [], waters).paths;
    expect(picture.paint(rig, scene, [], waters).paths).toEqual(before);
    const chosen = picture.paint(rig, scene, [], { ...waters, chosenRuns: new Set(["upper"]) });
    expect(chosen.paths).toEqual(paint(rig, scene, { ...waters, chosenRuns: new Set(["upper"]) }).paths);
    expect(chosen.paths).not.toEqual(before);
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
