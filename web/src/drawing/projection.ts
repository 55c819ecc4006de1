import type { Schema } from "../api/client";
import { towards } from "../document/geometry";

export type Point3 = Schema["Point3"];
export type Box3 = Schema["Box"];

/** From above, or from the kerb. The cab is to the right in both. */
export type View = "plan" | "side";
/** The views, and from the rear: the kerb is to the right then. */
export type Look = View | "rear";

/** Axes of the vehicle that lead right and up in a view; -1: the other way. */
export const axesOf: Record<Look, { right: keyof Point3; sign: 1 | -1; up: keyof Point3 }> = {
  side: { right: "xM", sign: 1, up: "zM" },
  plan: { right: "xM", sign: 1, up: "yM" },
  rear: { right: "yM", sign: -1, up: "zM" },
};

/** A window on the rig: metres at its middle, pixels a metre. */
export interface Frame {
  width: number;
  height: number;
  scale: number;
  /** Middle of the window: along the vehicle (from the rear: across it), and across (plan) or up. */
  alongM: number;
  otherM: number;
}

export interface Px {
  x: number;
  y: number;
}

/** Pixel of a place. */
export function toPx(view: Look, frame: Frame, p: Point3): Px {
  const { right, sign, up } = axesOf[view];
  return {
    x: frame.width / 2 + sign * (p[right] - frame.alongM) * frame.scale,
    y: frame.height / 2 - (p[up] - frame.otherM) * frame.scale,
  };
}

/** Rectangle of a box. */
export function rectOf(view: Look, frame: Frame, box: Box3) {
  const a = toPx(view, frame, box.at);
  const b = toPx(view, frame, {
    xM: box.at.xM + box.size.xM,
    yM: box.at.yM + box.size.yM,
    zM: box.at.zM + box.size.zM,
  });
  return { x: Math.min(a.x, b.x), y: b.y, width: Math.abs(b.x - a.x), height: a.y - b.y };
}

/** The part of a straight length between two fractions of it. */
export const part = (a: Point3, b: Point3, from: number, to: number): [Point3, Point3] => [towards(a, b, from), towards(a, b, to)];

export const pathOf = (points: Px[]) => points.map((p, i) => `${i ? "L" : "M"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("");

/** The wheel under an arch: no more than a sign of which way is down, so that the eye finds its place. */
export function wheelUnder(arch: Box3) {
  const radiusM = arch.size.xM * 0.4;
  return {
    centre: {
      xM: arch.at.xM + arch.size.xM / 2,
      yM: arch.at.yM,
      zM: arch.at.zM + arch.size.zM - 0.05 - radiusM,
    },
    radiusM,
  };
}

/** Extent of what a thumbnail shows of a rig, metres: body, rooms, parts and wheels. */
export function extentOf(rig: Schema["Rig"], view: Look) {
  const boxes = [rig.shell.body, ...rig.shell.zones.map((z) => z.box), ...rig.parts.map((p) => p.box)];
  const { right, up } = axesOf[view];
  const other = (p: Point3) => p[up];
  const lowX = Math.min(...boxes.map((b) => b.at[right]));
  const highX = Math.max(...boxes.map((b) => b.at[right] + b.size[right]));
  const wheels = rig.shell.obstacles.filter((o) => o.kind === "wheelArch").map((o) => wheelUnder(o.box));
  const lowO = Math.min(...boxes.map((b) => other(b.at)), ...(view === "side" ? wheels.map((w) => w.centre.zM - w.radiusM) : []));
  const highO = Math.max(...boxes.map((b) => other(b.at) + other(b.size)));
  return { lowX, highX, lowO, highO };
}

/** Side over plan on one scale of x, the rear beside the side on the same scale, as large as a window allows. */
export function threeViews(rig: Schema["Rig"], size: { width: number; height: number }): Record<Look, Frame> | null {
  if (size.width === 0) return null;
  const [side, plan, rear] = [extentOf(rig, "side"), extentOf(rig, "plan"), extentOf(rig, "rear")];
  // Above each drawing is room for its name.
  const [pad, name] = [12, 16];
  const across = (e: typeof side) => e.highX - e.lowX;
  const room = (size.height - 2 * (pad + name)) / (side.highO - side.lowO + plan.highO - plan.lowO);
  const scale = Math.max(1, Math.min((size.width - 4 * pad) / (across(side) + across(rear)), room));
  const rearWidth = Math.round(across(rear) * scale + 2 * pad);
  const frame = (extent: typeof side, width: number): Frame => ({
    width,
    height: Math.round((extent.highO - extent.lowO) * scale + pad + name),
    scale,
    alongM: (extent.lowX + extent.highX) / 2,
    otherM: (extent.lowO + extent.highO) / 2 + name / 2 / scale,
  });
  const along = size.width - rearWidth;
  return { side: frame(side, along), plan: frame(plan, along), rear: { ...frame(side, rearWidth), alongM: (rear.lowX + rear.highX) / 2 } };
}
