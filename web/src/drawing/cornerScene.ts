import type { Schema } from "../api/client";
import { courseOf, indexOf, middleOf, type Part, type Rig, type Run, towards } from "../document/geometry";
import { divide, type Scene } from "./cornerOrder";
import { boxPiece, linePiece, type Piece } from "./cornerPieces";

/** What a piece of the corner view belongs to. */
export type Owner = { kind: "part"; part: Part; look: Schema["PartLook"] } | { kind: "run"; run: Run; index: number };

type LookOf = (part: Part) => Schema["PartLook"];

/** A rig as it is put in order. */
export interface CornerScene {
  rig: Rig;
  under: Scene<Owner>;
  over: Scene<Owner>;
  /** Parts and runs that are not where the scene has them any more, and pieces of what they are now. */
  gone: Set<Part | Run>;
  loose: Piece<Owner>[];
}

const DOT_PX = 4;
const LINE_PX = 3;

/** Pieces of a rig that are to be divided, each by the number of what it belongs to: under the floor, and over it. */
export interface Heap {
  under: Piece<number>[];
  over: Piece<number>[];
}

/** A heap divided so that it can be put in order from any side. */
export interface Divided {
  under: Scene<number>;
  over: Scene<number>;
}

export const divideHeap = ({ under, over }: Heap): Divided => ({ under: divide(under), over: divide(over) });

/** All solids and lines of a rig. Joints and ends are dots. */
export function heapOf(rig: Rig, lookOf: LookOf): { owners: Owner[]; heap: Heap } {
  const pieces = piecesOf(rig, rig.parts, rig.runs, lookOf);
  const sides = (under: boolean) => pieces.flatMap((p, i) => side<number>({ ...p, key: i }, under));
  return { owners: pieces.map((p) => p.key), heap: { under: sides(true), over: sides(false) } };
}

/** The scene of a rig from its divided heap. */
export function sceneOf(rig: Rig, owners: Owner[], divided: Divided): CornerScene {
  const named = (scene: Scene<number>): Scene<Owner> =>
    "pieces" in scene
      ? { pieces: scene.pieces.map((p) => ({ ...p, key: owners[p.key] as Owner })) }
      : { axis: scene.axis, below: named(scene.below), above: named(scene.above) };
  return { rig, gone: new Set(), loose: [], under: named(divided.under), over: named(divided.over) };
}

/** A scene while something in it is being moved: what changed is taken out and drawn over the rest, until the hand rests and the whole is divided anew. */
export function sceneWith(old: CornerScene, rig: Rig, lookOf: LookOf): CornerScene {
  if (old.rig === rig) return old;
  const then = indexOf(old.rig);
  const parts = rig.parts.filter((p) => then.parts.get(p.id) !== p);
  const runs = rig.runs.filter((r) => {
    const before = then.runs.get(r.id);
    return !before || courseOf(old.rig, before) !== courseOf(rig, r);
  });
  const now = indexOf(rig);
  const changed = new Set([...parts.map((p) => p.id), ...runs.map((r) => r.id)]);
  const gone = [
    ...old.rig.parts.filter((p) => changed.has(p.id) || !now.parts.has(p.id)),
    ...old.rig.runs.filter((r) => changed.has(r.id) || !now.runs.has(r.id)),
  ];
  return { ...old, gone: new Set(gone), loose: piecesOf(rig, parts, runs, lookOf) };
}

function piecesOf(rig: Rig, parts: Part[], runs: Run[], lookOf: LookOf): Piece<Owner>[] {
  return [
    ...parts.map((part): Piece<Owner> => {
      const look = lookOf(part);
      const owner: Owner = { kind: "part", part, look };
      const solid = look === "body" || look === "cylinder" || look === "bowl";
      return solid ? boxPiece(owner, part.box) : linePiece(owner, middleOf(part.box), middleOf(part.box), DOT_PX);
    }),
    ...runs.flatMap((run) => {
      const course = courseOf(rig, run);
      return course
        .slice(1)
        .map((p, i): Piece<Owner> => linePiece({ kind: "run", run, index: i }, (course[i] as typeof p).at, p.at, LINE_PX));
    }),
  ];
}

/** What of a piece is under the floor, or over it. A solid that stands in the floor counts as over it. */
function side<K>(piece: Piece<K>, under: boolean): Piece<K>[] {
  if (piece.high.zM <= 1e-6) return under ? [piece] : [];
  if (piece.low.zM >= -1e-6 || piece.kind === "box") return under ? [] : [piece];
  const t = piece.a.zM / (piece.a.zM - piece.b.zM);
  const floor = { ...towards(piece.a, piece.b, t), zM: 0 };
  const [low, high] = piece.a.zM < piece.b.zM ? [piece.a, piece.b] : [piece.b, piece.a];
  return [linePiece(piece.key, under ? low : floor, under ? floor : high, piece.halfPx)];
}
