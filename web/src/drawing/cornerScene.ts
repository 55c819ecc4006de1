import type { Schema } from "../api/client";
import { courseOf, middleOf, type Part, type Rig, type Run } from "../document/geometry";
import { boxPiece, cutLines, linePiece, type Piece } from "./corner";

/** What a piece of the corner view belongs to. */
export type Owner = { kind: "part"; part: Part; look: Schema["PartLook"] } | { kind: "run"; run: Run; index: number };

const DOT_PX = 4;
const LINE_PX = 3;

/** All solids and lines of a rig, cut so that they can be put in order from any side. Joints and ends are dots. */
export function sceneOf(rig: Rig, lookOf: (part: Part) => Schema["PartLook"]): Piece<Owner>[] {
  return cutLines([
    ...rig.parts.map((part): Piece<Owner> => {
      const look = lookOf(part);
      const owner: Owner = { kind: "part", part, look };
      const solid = look === "body" || look === "cylinder" || look === "bowl";
      return solid ? boxPiece(owner, part.box) : linePiece(owner, middleOf(part.box), middleOf(part.box), DOT_PX);
    }),
    ...rig.runs.flatMap((run) => {
      const course = courseOf(rig, run);
      return course
        .slice(1)
        .map((p, i): Piece<Owner> => linePiece({ kind: "run", run, index: i }, (course[i] as typeof p).at, p.at, LINE_PX));
    }),
  ]);
}
