import { towards, type Xyz } from "../document/geometry";
import { AXES } from "./corner";

/** Something that is drawn: a straight length of a line, or an upright box. `key` names what it belongs to. */
export type Piece<K> = { key: K; low: Xyz; high: Xyz } & ({ kind: "box" } | { kind: "line"; a: Xyz; b: Xyz; halfPx: number });

export const boxPiece = <K>(key: K, box: { at: Xyz; size: Xyz }): Piece<K> => ({
  kind: "box",
  key,
  low: box.at,
  high: { xM: box.at.xM + box.size.xM, yM: box.at.yM + box.size.yM, zM: box.at.zM + box.size.zM },
});

export const linePiece = <K>(key: K, a: Xyz, b: Xyz, halfPx: number): Piece<K> => ({
  kind: "line",
  key,
  a,
  b,
  halfPx,
  low: { xM: Math.min(a.xM, b.xM), yM: Math.min(a.yM, b.yM), zM: Math.min(a.zM, b.zM) },
  high: { xM: Math.max(a.xM, b.xM), yM: Math.max(a.yM, b.yM), zM: Math.max(a.zM, b.zM) },
});

export const EPS = 1e-6;
/** Longer lines are cut: the longer a piece, the sooner it lies before and behind its neighbours at once. */
const LONGEST_M = 0.5;

export function cutAt<K>(piece: Piece<K> & { kind: "line" }, shares: Iterable<number>): Piece<K>[] {
  const cuts = [0, ...[...shares].sort((x, y) => x - y), 1];
  return cuts
    .slice(1)
    .map((t, i) => linePiece(piece.key, towards(piece.a, piece.b, cuts[i] as number), towards(piece.a, piece.b, t), piece.halfPx));
}

type Line<K> = Piece<K> & { kind: "line" };

/** Share of a line at which it passes a plane; null where it does not. */
export function passes<K>(piece: Line<K>, axis: (typeof AXES)[number], plane: number): number | null {
  const t = (plane - piece.a[axis]) / (piece.b[axis] - piece.a[axis]);
  return t > 1e-6 && t < 1 - 1e-6 ? t : null;
}

/** Lines cut where they pass the planes of the boxes that they come near: what is left of a line lies on one side of a box, or within it. */
export function cutLines<K>(pieces: Piece<K>[]): Piece<K>[] {
  const boxes = pieces.filter((p) => p.kind === "box");
  return pieces.flatMap((piece) => {
    if (piece.kind !== "line") return [piece];
    const at = new Set<number>();
    const parts = Math.ceil(Math.hypot(...AXES.map((axis) => piece.b[axis] - piece.a[axis])) / LONGEST_M);
    for (let i = 1; i < parts; i++) at.add(i / parts);
    for (const box of boxes) {
      // Far from it there is a plane of it that divides them anyhow.
      if (AXES.some((axis) => piece.high[axis] <= box.low[axis] + EPS || piece.low[axis] >= box.high[axis] - EPS)) continue;
      for (const axis of AXES)
        for (const plane of [box.low[axis], box.high[axis]]) {
          const t = passes(piece, axis, plane);
          if (t !== null) at.add(t);
        }
    }
    return at.size === 0 ? [piece] : cutAt(piece, at);
  });
}
