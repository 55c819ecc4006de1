import { describe, expect, it } from "vitest";
import type { Part } from "../document/geometry";
import { eyeOf } from "./corner";
import { inOrder, type Scene } from "./cornerOrder";
import { type Solid, solidOf } from "./solids";

const tap = (orientation: Part["orientation"], [wide, deep]: [number, number]) =>
  ({
    stock: "cold-tap",
    box: { at: { xM: 1, yM: 2, zM: 3 }, size: { xM: wide, yM: deep, zM: 0.22 } },
    orientation,
  }) as Part;
const pieces = (part: Part): Solid[] => {
  const flat = (scene: Scene<Solid["key"]>): Solid[] => ("pieces" in scene ? scene.pieces : [...flat(scene.below), ...flat(scene.above)]);
  return flat(solidOf(part) as Scene<Solid["key"]>);
};

describe("solids of parts", () => {
  it("turn with their part: a spout that faces the kerb faces forward after a quarter turn, and hangs below its lever upside down", () => {
    // Of its two boxes the spout is the one that lies farther from the middle.
    const spout = (part: Part) => {
      const middles = pieces(part)
        .filter((p) => p.key === "box")
        .map((p) => (["xM", "yM", "zM"] as const).map((a) => (p.low[a] + p.high[a]) / 2 - part.box.at[a] - part.box.size[a] / 2));
      const [[x, y, z]] = middles.sort((a, b) => Math.hypot(b[0] ?? 0, b[1] ?? 0) - Math.hypot(a[0] ?? 0, a[1] ?? 0)) as [
        [number, number, number],
      ];
      return [x, y, z].map((far) => (far > 1e-3 ? 1 : far < -1e-3 ? -1 : 0));
    };
    const turned = (quarterTurns: number, more = {}) => ({ quarterTurns, mirrored: false, upsideDown: false, ...more });
    expect(spout(tap(null, [0.06, 0.08]))).toEqual([0, -1, 1]);
    expect(spout(tap(turned(1), [0.08, 0.06]))).toEqual([1, 0, 1]);
    expect(spout(tap(turned(2), [0.06, 0.08]))).toEqual([0, 1, 1]);
    expect(spout(tap(turned(3), [0.08, 0.06]))).toEqual([-1, 0, 1]);
    expect(spout(tap(turned(0, { upsideDown: true }), [0.06, 0.08]))).toEqual([0, -1, -1]);
  });

  it("stay within the box of their part, and are drawn each once", () => {
    const part = tap(null, [0.06, 0.08]);
    const eye = eyeOf({ turnDeg: 30, tipDeg: 25, scale: 900, middle: part.box.at, width: 400, height: 300 });
    const seen = inOrder(solidOf(part) as Scene<Solid["key"]>, eye);
    expect(new Set(seen).size).toBe(pieces(part).length);
    for (const { low, high } of seen)
      for (const axis of ["xM", "yM", "zM"] as const) {
        expect(low[axis]).toBeGreaterThanOrEqual(part.box.at[axis] - 1e-9);
        expect(high[axis]).toBeLessThanOrEqual(part.box.at[axis] + part.box.size[axis] + 1e-9);
      }
  });
});
