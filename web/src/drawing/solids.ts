import type { Part, Xyz } from "../document/geometry";
import { divide, type Scene } from "./cornerOrder";
import { boxPiece, type Piece } from "./cornerPieces";

/** A box, or a body that is round about one axis, in hundredths of the box of a part as it comes from stock: from x, y, z to x, y, z. */
type Shape = ["box" | "x" | "y" | "z", number, number, number, number, number, number];

const tap: Shape[] = [
  ["z", 35, 35, 0, 65, 65, 88],
  ["box", 42, 0, 78, 58, 35, 88],
  ["box", 40, 40, 88, 60, 100, 100],
];
const valve: Shape[] = [
  ["x", 0, 10, 0, 100, 90, 62],
  ["z", 40, 38, 62, 60, 62, 82],
  ["box", 40, 34, 82, 100, 66, 100],
];
const pump: Shape[] = [
  ["box", 10, 0, 0, 95, 100, 12],
  ["box", 0, 8, 12, 36, 92, 100],
  ["x", 36, 16, 18, 100, 84, 96],
];
const vessel: Shape[] = [
  ["z", 38, 38, 0, 62, 62, 14],
  ["z", 0, 0, 14, 100, 100, 100],
];
const bowlUnderHead: Shape[] = [
  ["z", 10, 10, 0, 90, 90, 74],
  ["box", 0, 4, 74, 100, 96, 100],
];
const lyingTank: Shape[] = [
  ["box", 14, 10, 0, 24, 90, 14],
  ["box", 76, 10, 0, 86, 90, 14],
  ["x", 0, 0, 8, 100, 100, 100],
];
const barrelWithKnob: Shape[] = [
  ["x", 0, 20, 0, 100, 80, 50],
  ["z", 30, 15, 50, 70, 85, 100],
];
const manifold = (ways: number): Shape[] => [
  ["x", 0, 20, 0, 100, 80, 55],
  ...Array.from({ length: ways }, (_, i): Shape => ["z", (100 * (i + 0.25)) / ways, 20, 55, (100 * (i + 0.75)) / ways, 80, 100]),
];
const bars = (count: number, axis: "x" | "y" | "z", deep: number): Shape[] =>
  Array.from({ length: count }, (_, i): Shape => {
    const [from, to] = [(100 * i) / count, (100 * (i + 0.6)) / count];
    return axis === "x" ? [axis, 0, from, 0, 100, to, deep] : ["box", from, 0, 0, to, 100, deep];
  });

/** What parts look like in space, where a box or a cylinder does not say it. Not to scale within the box. */
const solids: Record<string, Shape[]> = {
  pump,
  "return-pump": pump,
  circulator: pump,
  strainer: bowlUnderHead,
  filter: bowlUnderHead,
  "drinking-filter": bowlUnderHead,
  accumulator: vessel,
  "expansion-vessel": vessel,
  ultraviolet: [
    ["x", 0, 8, 8, 12, 92, 92],
    ["x", 12, 0, 0, 88, 100, 100],
    ["x", 88, 8, 8, 100, 92, 92],
  ],
  "ball-valve": valve,
  "ball-valve-22": valve,
  "three-way-valve": [
    ["y", 36, 50, 0, 64, 100, 60],
    ["x", 0, 0, 0, 100, 50, 60],
    ...valve.slice(1).map((s): Shape => [s[0], s[1], s[2] / 2, s[3], s[4], s[5] / 2, s[6]]),
  ],
  "angle-valve": barrelWithKnob,
  "toilet-valve": barrelWithKnob,
  "mixing-valve": barrelWithKnob,
  "pressure-regulator": barrelWithKnob,
  "check-valve": [
    ["x", 0, 20, 20, 30, 80, 80],
    ["box", 30, 5, 5, 70, 95, 95],
    ["x", 70, 20, 20, 100, 80, 80],
  ],
  mixer: tap,
  "cold-tap": tap,
  "drinking-tap": tap,
  "shower-mixer": [
    ["x", 0, 0, 10, 22, 100, 100],
    ["x", 22, 20, 25, 78, 80, 85],
    ["x", 78, 0, 10, 100, 100, 100],
  ],
  "outdoor-shower": [
    ["box", 0, 40, 0, 100, 100, 100],
    ["y", 10, 0, 50, 36, 40, 90],
    ["y", 64, 0, 50, 90, 40, 90],
  ],
  "pet-wash": [
    ["box", 0, 40, 0, 100, 100, 100],
    ["y", 30, 0, 20, 70, 40, 80],
  ],
  "storage-heater": [
    ["box", 0, 4, 0, 12, 96, 100],
    ["x", 12, 0, 0, 100, 100, 100],
  ],
  "gas-heater": [
    ["box", 0, 0, 0, 100, 100, 86],
    ["z", 36, 20, 86, 64, 80, 100],
  ],
  "plate-exchanger": bars(5, "z", 100),
  calorifier: lyingTank,
  "coil-calorifier": lyingTank,
  "coolant-heater": [
    ["box", 0, 0, 20, 80, 100, 100],
    ["x", 80, 25, 40, 100, 75, 80],
    ["z", 20, 30, 0, 40, 70, 20],
  ],
  "pumped-coolant-heater": [
    ["box", 0, 0, 20, 70, 100, 100],
    ["x", 70, 25, 40, 100, 75, 80],
    ["z", 20, 30, 0, 40, 70, 20],
  ],
  engine: [
    ["box", 0, 0, 0, 100, 100, 60],
    ["x", 10, 30, 60, 90, 70, 100],
  ],
  radiator: [
    ["box", 0, 40, 0, 100, 100, 100],
    ["y", 15, 0, 10, 85, 40, 90],
  ],
  "header-tank": [
    ["box", 0, 0, 0, 100, 100, 80],
    ["z", 30, 25, 80, 70, 75, 100],
  ],
  "coolant-coil": bars(4, "x", 100),
  trap: [
    ["box", 0, 10, 0, 62, 90, 30],
    ["z", 0, 10, 30, 26, 90, 100],
    ["z", 36, 10, 30, 62, 90, 62],
    ["x", 62, 15, 38, 100, 85, 62],
  ],
  "waterless-trap": [
    ["z", 15, 15, 0, 85, 85, 35],
    ["z", 0, 0, 35, 100, 100, 65],
    ["z", 15, 15, 65, 85, 85, 100],
  ],
  "arch-tank": [
    ["box", 0, 0, 0, 22, 100, 100],
    ["box", 22, 0, 62, 78, 100, 100],
    ["box", 78, 0, 0, 100, 100, 100],
  ],
  "l-tank": [
    ["box", 0, 0, 0, 100, 52, 100],
    ["box", 0, 52, 0, 48, 100, 100],
  ],
  can: [
    ["box", 0, 0, 0, 100, 100, 88],
    ["z", 55, 25, 88, 90, 75, 100],
  ],
  "dip-tube": [
    ["z", 36, 36, 0, 64, 64, 90],
    ["z", 5, 5, 90, 95, 95, 100],
  ],
  "level-sender": [
    ["z", 42, 42, 0, 58, 58, 92],
    ["z", 5, 5, 92, 95, 95, 100],
    ["z", 20, 20, 30, 42, 42, 48],
  ],
  "town-inlet": [
    ["box", 0, 0, 0, 20, 100, 100],
    ["x", 20, 20, 15, 100, 80, 85],
  ],
  "town-coupling": [
    ["box", 0, 0, 0, 20, 100, 100],
    ["x", 20, 30, 25, 100, 70, 75],
  ],
  "fill-filter": [
    ["x", 0, 25, 25, 20, 75, 75],
    ["x", 20, 0, 0, 80, 100, 100],
    ["x", 80, 25, 25, 100, 75, 75],
  ],
  "foot-pump": [
    ["box", 0, 0, 0, 100, 100, 15],
    ["z", 20, 10, 15, 70, 90, 80],
    ["box", 15, 10, 80, 100, 90, 100],
  ],
  toilet: [
    ["box", 0, 10, 0, 30, 90, 100],
    ["z", 30, 8, 0, 100, 92, 76],
  ],
  "washing-machine": [
    ["box", 0, 8, 0, 100, 100, 100],
    ["y", 20, 0, 28, 80, 8, 82],
  ],
  dishwasher: [
    ["box", 0, 8, 0, 100, 100, 100],
    ["box", 15, 0, 80, 85, 8, 88],
  ],
  "wheeled-grey-tank": [
    ["y", 8, 0, 0, 34, 18, 30],
    ["y", 8, 82, 0, 34, 100, 30],
    ["box", 0, 18, 8, 100, 82, 100],
  ],
  bucket: [["z", 0, 0, 0, 100, 100, 100]],
  "manifold-3": manifold(3),
  "manifold-5": manifold(5),
};

/** A solid of a part. Kept in the order in which it is seen from one side. */
export type Solid = Piece<"box" | "x" | "y" | "z">;
const made = new WeakMap<Part, Scene<Solid["key"]> | null>();

/** A part as a heap of solids where it stands, turned as it is; null where its box says it all. */
export function solidOf(part: Part): Scene<Solid["key"]> | null {
  const known = made.get(part);
  if (known !== undefined) return known;
  const shapes = solids[part.stock];
  const scene = shapes ? divide(shapes.map((s) => placed(part, s))) : null;
  made.set(part, scene);
  return scene;
}

function placed(part: Part, [kind, ...at]: Shape): Solid {
  const { quarterTurns: turns = 0, mirrored = false, upsideDown = false } = part.orientation ?? {};
  let [a, b, c, d] = [at[0], at[1], at[3], at[4]].map((n) => n / 100) as [number, number, number, number];
  if (mirrored) [a, c] = [1 - c, 1 - a];
  // A quarter turn, counter-clockwise from above, takes x to y and y to the far end of x.
  for (let i = 0; i < turns; i++) [a, b, c, d] = [1 - d, a, 1 - b, c];
  const key = turns % 2 === 0 || kind === "z" || kind === "box" ? kind : kind === "x" ? "y" : "x";
  const { at: low, size } = part.box;
  const corner = (u: number, v: number, w: number): Xyz => ({
    xM: low.xM + u * size.xM,
    yM: low.yM + v * size.yM,
    zM: low.zM + w * size.zM,
  });
  const [bottom, top] = upsideDown ? [1 - at[5] / 100, 1 - at[2] / 100] : [at[2] / 100, at[5] / 100];
  const [from, to] = [corner(a, b, bottom), corner(c, d, top)];
  return boxPiece(key, { at: from, size: { xM: to.xM - from.xM, yM: to.yM - from.yM, zM: to.zM - from.zM } });
}
