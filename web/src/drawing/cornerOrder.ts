import { AXES, cornersOf, type Eye, hull } from "./corner";
import { cutAt, cutLines, EPS, type Piece, passes } from "./cornerPieces";
import type { Px } from "./projection";

/**
 * Pieces divided by planes as far as no box is cut: what is on the eye's side of a plane is never behind what is beyond it. The
 * same from every side, so it is made once for a drawing.
 */
export type Scene<K> = { axis: (typeof AXES)[number]; below: Scene<K>; above: Scene<K> } | { pieces: Piece<K>[]; last?: Piece<K>[] };

const FEW = 6;

/** More than so many that no plane divides stand in each other, as nothing does in a vehicle: they are put in order by their middles alone. */
const TANGLED = 160;

/** Divides pieces. O(n log² n) where they stand apart. */
export function divide<K>(pieces: Piece<K>[]): Scene<K> {
  if (pieces.length <= FEW) return { pieces: cutLines(pieces) };
  let best: { axis: (typeof AXES)[number]; plane: number; cost: number } | null = null;
  for (const axis of AXES) {
    const boxes = pieces.filter((p) => p.kind === "box");
    const lows = pieces.map((p) => p.low[axis]).sort((a, b) => a - b);
    const highs = pieces.map((p) => p.high[axis]).sort((a, b) => a - b);
    const boxLows = boxes.map((p) => p.low[axis]).sort((a, b) => a - b);
    const boxHighs = boxes.map((p) => p.high[axis]).sort((a, b) => a - b);
    let [i, j, k, l] = [0, 0, 0, 0];
    let before = Number.NaN;
    for (const plane of [...lows, ...highs].sort((a, b) => a - b)) {
      if (plane - before < EPS) continue;
      before = plane;
      // Begun before the plane, and ended by it.
      while (i < lows.length && (lows[i] as number) < plane - EPS) i++;
      while (j < highs.length && (highs[j] as number) <= plane + EPS) j++;
      while (k < boxLows.length && (boxLows[k] as number) < plane - EPS) k++;
      while (l < boxHighs.length && (boxHighs[l] as number) <= plane + EPS) l++;
      // Flat things on the plane have ended by it but not begun before it; they go below.
      if (Math.max(0, k - l) > 0) continue;
      const cut = Math.max(0, i - j);
      const below = j;
      const above = pieces.length - j - cut;
      if (below === 0 || above + cut === 0 || below + cut >= pieces.length || above + cut >= pieces.length) continue;
      const cost = Math.max(below, above) + 1.5 * cut;
      if (!best || cost < best.cost) best = { axis, plane, cost };
    }
  }
  if (!best || best.cost >= pieces.length) return { pieces: cutLines(pieces) };
  const { axis, plane } = best;
  const [below, above]: [Piece<K>[], Piece<K>[]] = [[], []];
  for (const piece of pieces) {
    if (piece.high[axis] <= plane + EPS) below.push(piece);
    else if (piece.low[axis] >= plane - EPS) above.push(piece);
    else if (piece.kind === "line") {
      const t = passes(piece, axis, plane);
      const halves = t === null ? [piece] : cutAt(piece, [t]);
      for (const half of halves) ((half.low[axis] + half.high[axis]) / 2 <= plane ? below : above).push(half);
    } else above.push(piece);
  }
  return { axis, below: divide(below), above: divide(above) };
}

/** All pieces of a scene from back to front. `quick`: what no plane divides stays in the order in which it was last put, for a view that is being turned. */
export function inOrder<K>(scene: Scene<K>, eye: Eye, quick = false, into: Piece<K>[] = []): Piece<K>[] {
  if ("pieces" in scene) {
    if (!quick || !scene.last) scene.last = scene.pieces.length > 1 ? backToFront(scene.pieces, eye) : scene.pieces;
    for (const piece of scene.last) into.push(piece);
    return into;
  }
  const toEye = eye.towards[scene.axis] > 0;
  inOrder(toEye ? scene.below : scene.above, eye, quick, into);
  return inOrder(toEye ? scene.above : scene.below, eye, quick, into);
}

/** Closest shares of two lengths on the screen, and how far apart they are there. */
function nearest(a: Px, b: Px, c: Px, d: Px): { s: number; t: number; far: number } {
  const cross = (b.x - a.x) * (d.y - c.y) - (b.y - a.y) * (d.x - c.x);
  if (Math.abs(cross) > 1e-9) {
    const s = ((c.x - a.x) * (d.y - c.y) - (c.y - a.y) * (d.x - c.x)) / cross;
    const t = ((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / cross;
    if (s >= 0 && s <= 1 && t >= 0 && t <= 1) return { s, t, far: 0 };
  }
  const on = (p: Px, q: Px, r: Px) => {
    const square = (r.x - q.x) ** 2 + (r.y - q.y) ** 2;
    const u = square === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - q.x) * (r.x - q.x) + (p.y - q.y) * (r.y - q.y)) / square));
    return { u, far: Math.hypot(p.x - q.x - u * (r.x - q.x), p.y - q.y - u * (r.y - q.y)) };
  };
  const ends = [
    { ...on(a, c, d), of: (u: number) => ({ s: 0, t: u }) },
    { ...on(b, c, d), of: (u: number) => ({ s: 1, t: u }) },
    { ...on(c, a, b), of: (u: number) => ({ s: u, t: 0 }) },
    { ...on(d, a, b), of: (u: number) => ({ s: u, t: 1 }) },
  ];
  const best = ends.reduce((x, y) => (y.far < x.far ? y : x));
  return { ...best.of(best.u), far: best.far };
}

interface Seen<K> {
  piece: Piece<K>;
  a: Px;
  b: Px;
  depthA: number;
  depthB: number;
  middle: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Corners of a box on the screen, and their outline once it is asked for. */
  corners: Px[] | null;
  outline: Px[] | null;
}

function see<K>(piece: Piece<K>, eye: Eye): Seen<K> {
  if (piece.kind === "line") {
    const [a, b] = [eye.px(piece.a), eye.px(piece.b)];
    const [depthA, depthB] = [eye.depth(piece.a), eye.depth(piece.b)];
    const h = piece.halfPx;
    return {
      piece,
      a,
      b,
      depthA,
      depthB,
      middle: (depthA + depthB) / 2,
      left: Math.min(a.x, b.x) - h,
      right: Math.max(a.x, b.x) + h,
      top: Math.min(a.y, b.y) - h,
      bottom: Math.max(a.y, b.y) + h,
      corners: null,
      outline: null,
    };
  }
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  const corners = cornersOf(piece).map(eye.px);
  for (const p of corners) {
    left = Math.min(left, p.x);
    right = Math.max(right, p.x);
    top = Math.min(top, p.y);
    bottom = Math.max(bottom, p.y);
  }
  const middle = eye.depth({
    xM: (piece.low.xM + piece.high.xM) / 2,
    yM: (piece.low.yM + piece.high.yM) / 2,
    zM: (piece.low.zM + piece.high.zM) / 2,
  });
  return {
    piece,
    a: { x: left, y: top },
    b: { x: right, y: bottom },
    depthA: middle,
    depthB: middle,
    middle,
    left,
    right,
    top,
    bottom,
    corners,
    outline: null,
  };
}

function outlineOf<K>(s: Seen<K>): Px[] | null {
  if (s.corners && !s.outline) s.outline = hull(s.corners);
  return s.outline;
}

/** Whether two convex outlines, or an outline and a line of some width, lie apart on the screen: there is a side of one beyond which the other is. */
function apart<K>(p: Seen<K>, q: Seen<K>): boolean {
  const beyond = (outline: Px[], points: Px[], room: number) =>
    outline.some((a, i) => {
      const b = outline[(i + 1) % outline.length] as Px;
      const [nx, ny] = [b.y - a.y, a.x - b.x];
      const length = Math.hypot(nx, ny);
      return length > 1e-9 && points.every((c) => ((c.x - a.x) * nx + (c.y - a.y) * ny) / length > room - 0.01);
    });
  const [po, qo] = [outlineOf(p), outlineOf(q)];
  if (po && qo) return beyond(po, qo, 0) || beyond(qo, po, 0);
  const [outline, line] = po ? [po, q] : [qo as Px[], p];
  const half = line.piece.kind === "line" ? line.piece.halfPx : 0;
  if (beyond(outline, [line.a, line.b], half)) return true;
  // Beyond a side of the line itself.
  const [nx, ny] = [line.b.y - line.a.y, line.a.x - line.b.x];
  const length = Math.hypot(nx, ny);
  if (length < 1e-9) return false;
  const sides = outline.map((c) => ((c.x - line.a.x) * nx + (c.y - line.a.y) * ny) / length);
  return sides.every((d) => d > half) || sides.every((d) => d < -half);
}

/** Which of two that overlap on the screen is nearer: 1 the first, -1 the second, 0 either. */
function nearer<K>(p: Seen<K>, q: Seen<K>, eye: Eye): number {
  if (p.piece.kind === "line" && q.piece.kind === "line") {
    const { s, t, far } = nearest(p.a, p.b, q.a, q.b);
    if (far > p.piece.halfPx + q.piece.halfPx) return 0;
    const depth = p.depthA + (p.depthB - p.depthA) * s - (q.depthA + (q.depthB - q.depthA) * t);
    // Where they are joined neither is nearer.
    return Math.abs(depth) < 1e-3 ? 0 : Math.sign(depth);
  }
  if (apart(p, q)) return 0;
  for (const axis of AXES) {
    const toEye = eye.towards[axis];
    if (Math.abs(toEye) < 1e-9) continue;
    if (p.piece.high[axis] <= q.piece.low[axis] + EPS) return toEye > 0 ? -1 : 1;
    if (q.piece.high[axis] <= p.piece.low[axis] + EPS) return toEye > 0 ? 1 : -1;
  }
  // One is in the other: a line within a solid is behind its face.
  if (p.piece.kind === "line") return -1;
  if (q.piece.kind === "line") return 1;
  return Math.sign(p.middle - q.middle);
}

/** Few pieces from back to front. Those that overlap on the screen are compared; a ring of them is cut at its farthest. */
function backToFront<K>(pieces: Piece<K>[], eye: Eye): Piece<K>[] {
  const seen = pieces.map((p) => see(p, eye)).sort((a, b) => a.middle - b.middle);
  if (seen.length > TANGLED) return seen.map((s) => s.piece);
  const behind: number[][] = seen.map(() => []);
  for (let i = 1; i < seen.length; i++) {
    const s = seen[i] as Seen<K>;
    for (let j = 0; j < i; j++) {
      const o = seen[j] as Seen<K>;
      if (s.right < o.left || o.right < s.left || s.bottom < o.top || o.bottom < s.top) continue;
      const which = nearer(s, o, eye);
      if (which > 0) (behind[i] as number[]).push(j);
      else if (which < 0) (behind[j] as number[]).push(i);
    }
  }
  const state = new Uint8Array(seen.length);
  const order: Piece<K>[] = [];
  for (let i = 0; i < seen.length; i++) {
    if (state[i]) continue;
    // Depth first, by hand: a long chain must not end the stack.
    const stack: { at: number; next: number }[] = [{ at: i, next: 0 }];
    state[i] = 1;
    while (stack.length > 0) {
      const top = stack[stack.length - 1] as { at: number; next: number };
      const before = behind[top.at] as number[];
      const next = before[top.next++];
      if (next === undefined) {
        order.push((seen[top.at] as Seen<K>).piece);
        stack.pop();
      } else if (!state[next]) {
        state[next] = 1;
        stack.push({ at: next, next: 0 });
      }
    }
  }
  return order;
}
