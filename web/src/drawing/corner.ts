import type { Xyz } from "../document/geometry";
import type { Px } from "./projection";

/** From where the rig is seen: turned about the upright, tipped down from the horizon (negative: from below), in parallel projection. */
export interface Camera {
  turnDeg: number;
  tipDeg: number;
  scale: number;
  /** The place that lies in the middle of the window. */
  middle: Xyz;
  width: number;
  height: number;
}

/** A camera with its sines worked out. Depth grows towards the eye. */
export interface Eye {
  /** Pixels a metre. */
  scale: number;
  px(p: Xyz): Px;
  depth(p: Xyz): number;
  /** Towards the eye, in the vehicle. */
  towards: Xyz;
  /** The place and the way of sight under a pixel: places on it are `at + t * towards`. */
  ray(at: Px): Xyz;
}

export function eyeOf({ turnDeg, tipDeg, scale, middle, width, height }: Camera): Eye {
  const [ct, st] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  const [cp, sp] = [Math.cos((tipDeg * Math.PI) / 180), Math.sin((tipDeg * Math.PI) / 180)];
  // Right, up and towards the eye are at right angles.
  const right = { xM: st, yM: -ct, zM: 0 };
  const up = { xM: ct * sp, yM: st * sp, zM: cp };
  const towards = { xM: -ct * cp, yM: -st * cp, zM: sp };
  const dot = (a: Xyz, b: Xyz) => a.xM * b.xM + a.yM * b.yM + a.zM * b.zM;
  const [mr, mu] = [dot(right, middle), dot(up, middle)];
  return {
    scale,
    towards,
    px: (p) => ({ x: width / 2 + (dot(right, p) - mr) * scale, y: height / 2 - (dot(up, p) - mu) * scale }),
    depth: (p) => dot(towards, p),
    ray: ({ x, y }) => {
      const [r, u] = [(x - width / 2) / scale + mr, mu - (y - height / 2) / scale];
      return { xM: right.xM * r + up.xM * u, yM: right.yM * r + up.yM * u, zM: right.zM * r + up.zM * u };
    },
  };
}

/** The place at a height under a pixel; null where the sight is too level to tell how far away it is. */
export function placeAtHeight(eye: Eye, at: Px, zM: number): Xyz | null {
  const { towards } = eye;
  if (Math.abs(towards.zM) < LEVEL) return null;
  const on = eye.ray(at);
  const t = (zM - on.zM) / towards.zM;
  return { xM: on.xM + t * towards.xM, yM: on.yM + t * towards.yM, zM };
}

/** Sine of some 10°: below it a pixel is a long way. */
const LEVEL = 0.17;

export const AXES = ["xM", "yM", "zM"] as const;

export function cornersOf({ low, high }: { low: Xyz; high: Xyz }): Xyz[] {
  const made: Xyz[] = [];
  for (const xM of [low.xM, high.xM]) for (const yM of [low.yM, high.yM]) for (const zM of [low.zM, high.zM]) made.push({ xM, yM, zM });
  return made;
}

/** The faces of a box that can be seen, as corners; the lit one (its top, or bottom from below) first. */
export function facesOf(box: { low: Xyz; high: Xyz }, eye: Eye): { corners: Xyz[]; axis: (typeof AXES)[number] }[] {
  return (["zM", "xM", "yM"] as const).flatMap((axis) => {
    const toEye = eye.towards[axis];
    if (Math.abs(toEye) < 1e-6) return [];
    const at = toEye > 0 ? box.high[axis] : box.low[axis];
    const [u, v] = AXES.filter((a) => a !== axis) as [(typeof AXES)[number], (typeof AXES)[number]];
    const corner = (cu: number, cv: number) => ({ [axis]: at, [u]: cu, [v]: cv }) as unknown as Xyz;
    return [
      {
        axis,
        corners: [
          corner(box.low[u], box.low[v]),
          corner(box.high[u], box.low[v]),
          corner(box.high[u], box.high[v]),
          corner(box.low[u], box.high[v]),
        ],
      },
    ];
  });
}

const SIDES = 20;

/** A body that is round about an axis (left out: along its longest edge): its outline, and the end that can be seen. */
export function roundOf(box: { low: Xyz; high: Xyz }, eye: Eye, about?: (typeof AXES)[number]): { outline: Px[]; end: Px[] } {
  const size = (axis: (typeof AXES)[number]) => box.high[axis] - box.low[axis];
  const axis = about ?? AXES.reduce((a, b) => (size(b) > size(a) + 1e-9 ? b : a));
  const [u, v] = AXES.filter((a) => a !== axis) as [(typeof AXES)[number], (typeof AXES)[number]];
  const ring = (at: number) =>
    Array.from({ length: SIDES }, (_, i) => {
      const angle = (2 * Math.PI * i) / SIDES;
      const mid = (a: (typeof AXES)[number]) => (box.low[a] + box.high[a]) / 2;
      return eye.px({
        [axis]: at,
        [u]: mid(u) + (size(u) / 2) * Math.cos(angle),
        [v]: mid(v) + (size(v) / 2) * Math.sin(angle),
      } as unknown as Xyz);
    });
  const [low, high] = [ring(box.low[axis]), ring(box.high[axis])];
  return { outline: hull([...low, ...high]), end: eye.towards[axis] > 0 ? high : low };
}

/** Convex hull, counter-clockwise on paper. */
export function hull(points: Px[]): Px[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: Px[]) => {
    const made: Px[] = [];
    for (const p of list) {
      while (made.length > 1) {
        const [a, b] = [made[made.length - 2] as Px, made[made.length - 1] as Px];
        if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > 0) break;
        made.pop();
      }
      made.push(p);
    }
    return made.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
