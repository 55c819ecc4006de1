import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { middleOf, plumbingOf, type Rig } from "../document/geometry";
import { type Camera, cornersOf, type Eye, eyeOf, facesOf, hull } from "./corner";
import { divide, inOrder } from "./cornerOrder";
import { boxPiece, linePiece, type Piece } from "./cornerPieces";
import { divideHeap, heapOf } from "./cornerScene";
import { fromLine } from "./pick";

// A pipe of 15 mm at this scale; lines are drawn wider than what they stand for.
const PIPE_PX = 1.2;

const sparrow = JSON.parse(readFileSync("../demo/sparrow.json", "utf8")) as Rig;

type Order = (eye: Eye) => Piece<string>[];

const drawn = (rig: Rig): Order => {
  const { owners, heap } = heapOf(rig, (p) => (p.stock === "tee" ? "joint" : "body"));
  const scene = divideHeap(heap);
  return (eye) =>
    (eye.towards.zM > 0 ? [scene.under, scene.over] : [scene.over, scene.under])
      .flatMap((half) => inOrder(half, eye))
      .map((p) => {
        const owner = owners[p.key];
        return { ...p, key: owner?.kind === "part" ? owner.part.id : (owner?.run.id ?? "") };
      });
};

/** A heap of boxes and lines with no order to it. */
function heap(seed: number): Order {
  let state = seed;
  const random = () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
  const at = () => ({ xM: random() * 4, yM: random() * 1.8, zM: random() * 1.6 - 0.3 });
  const boxes: ReturnType<typeof boxPiece<string>>[] = [];
  while (boxes.length < 40) {
    const box = boxPiece(`b${boxes.length}`, {
      at: at(),
      size: { xM: 0.05 + random() * 0.3, yM: 0.05 + random() * 0.3, zM: 0.05 + random() * 0.3 },
    });
    // Solids do not stand in each other.
    if (boxes.every((o) => (["xM", "yM", "zM"] as const).some((a) => o.high[a] <= box.low[a] || o.low[a] >= box.high[a]))) boxes.push(box);
  }
  const scene = divide<string>([...boxes, ...Array.from({ length: 70 }, (_, i) => linePiece(`l${i}`, at(), at(), 3))]);
  return (eye) => inOrder(scene, eye);
}

const cameraOf = (turnDeg: number, tipDeg: number): Camera => ({
  turnDeg,
  tipDeg,
  scale: 150,
  middle: middleOf(plumbingOf(sparrow)),
  width: 800,
  height: 600,
});

/** How near a piece is to the eye under a pixel; null where it is not. */
function depthUnder(piece: Piece<string>, eye: Eye, at: { x: number; y: number }): number | null {
  if (piece.kind === "line") {
    const [a, b] = [eye.px(piece.a), eye.px(piece.b)];
    if (fromLine(at, a, b) > PIPE_PX) return null;
    const square = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((at.x - a.x) * (b.x - a.x) + (at.y - a.y) * (b.y - a.y)) / square));
    return eye.depth(piece.a) + (eye.depth(piece.b) - eye.depth(piece.a)) * t;
  }
  let [enter, leave] = [-Infinity, Infinity];
  const from = eye.ray(at);
  for (const axis of ["xM", "yM", "zM"] as const) {
    const [t0, t1] = [(piece.low[axis] - from[axis]) / eye.towards[axis], (piece.high[axis] - from[axis]) / eye.towards[axis]];
    enter = Math.max(enter, Math.min(t0, t1));
    leave = Math.min(leave, Math.max(t0, t1));
  }
  return enter <= leave ? leave : null;
}

describe("the corner view", () => {
  it("sees right angles: a pixel's line of sight leads back to the place it shows", () => {
    const eye = eyeOf(cameraOf(62, 27));
    const place = { xM: 1.2, yM: 0.7, zM: 0.4 };
    const from = eye.ray(eye.px(place));
    const t = eye.depth(place);
    for (const axis of ["xM", "yM", "zM"] as const) expect(from[axis] + t * eye.towards[axis]).toBeCloseTo(place[axis]);
    expect(Math.hypot(eye.towards.xM, eye.towards.yM, eye.towards.zM)).toBeCloseTo(1);
    // From above tops are seen, from below bottoms; the cab stays to the right.
    expect(facesOf(boxPiece("", { at: place, size: place }), eye)[0]?.corners[0]?.zM).toBe(0.8);
    expect(facesOf(boxPiece("", { at: place, size: place }), eyeOf(cameraOf(62, -30)))[0]?.corners[0]?.zM).toBe(0.4);
    expect(eye.px({ ...place, xM: 2 }).x).toBeGreaterThan(eye.px(place).x);
  });

  it.each([
    ["the demo rig", drawn(sparrow)],
    ["a heap", heap(7)],
    ["another heap", heap(99)],
  ])("draws back to front: the piece on top is the nearest at 1,000 random pixels of %s, from every side and from below", (_, ordered) => {
    let [hits, right] = [0, 0];
    let state = 12345;
    const random = () => {
      state = (state * 1103515245 + 12345) % 2147483648;
      return state / 2147483648;
    };
    for (const [turn, tip] of [
      [62, 27],
      [150, 20],
      [-40, 60],
      [200, -25],
    ] as const) {
      const eye = eyeOf(cameraOf(turn, tip));
      const order = ordered(eye);
      for (let n = 0; n < 250; ) {
        // About some piece, where there is likely to be another.
        const some = order[Math.floor(random() * order.length)] as Piece<string>;
        const near = eye.px({ xM: some.low.xM, yM: some.low.yM, zM: some.low.zM });
        const at = { x: near.x + (random() - 0.5) * 60, y: near.y + (random() - 0.5) * 60 };
        const depths = order.map((p) => depthUnder(p, eye, at)).filter((d) => d !== null);
        if (depths.length < 2) continue;
        n++;
        hits++;
        // Joined lengths and faces that touch are as near as each other.
        if ((depths.at(-1) as number) >= Math.max(...depths) - 0.015) right++;
      }
    }
    expect(hits).toBe(1000);
    expect(right / hits).toBeGreaterThanOrEqual(0.995);
  });

  it("outlines what it is given", () => {
    const eye = eyeOf(cameraOf(62, 27));
    const outline = hull(cornersOf({ low: { xM: 0, yM: 0, zM: 0 }, high: { xM: 1, yM: 1, zM: 1 } }).map(eye.px));
    expect(outline).toHaveLength(6);
  });
});
