import type { Schema } from "../api/client";
import { towards } from "../document/geometry";

export type Point3 = Schema["Point3"];
export type Box3 = Schema["Box"];

/** From above, or from the kerb. The cab is to the right in both. */
export type View = "plan" | "side";

/** A window on the rig: metres at its middle, pixels a metre. */
export interface Frame {
  width: number;
  height: number;
  scale: number;
  /** Middle of the window: along the vehicle, and across (plan) or up (side). */
  alongM: number;
  otherM: number;
}

export interface Px {
  x: number;
  y: number;
}

/** Pixel of a place. */
export function toPx(view: View, frame: Frame, p: Point3): Px {
  const other = view === "plan" ? p.yM : p.zM;
  return {
    x: frame.width / 2 + (p.xM - frame.alongM) * frame.scale,
    y: frame.height / 2 - (other - frame.otherM) * frame.scale,
  };
}

/** Rectangle of a box. */
export function rectOf(view: View, frame: Frame, box: Box3) {
  const a = toPx(view, frame, box.at);
  const b = toPx(view, frame, {
    xM: box.at.xM + box.size.xM,
    yM: box.at.yM + box.size.yM,
    zM: box.at.zM + box.size.zM,
  });
  return { x: a.x, y: b.y, width: b.x - a.x, height: a.y - b.y };
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
export function extentOf(rig: Schema["Rig"], view: View) {
  const boxes = [rig.shell.body, ...rig.shell.zones.map((z) => z.box), ...rig.parts.map((p) => p.box)];
  const other = (p: Point3) => (view === "plan" ? p.yM : p.zM);
  const lowX = Math.min(...boxes.map((b) => b.at.xM));
  const highX = Math.max(...boxes.map((b) => b.at.xM + b.size.xM));
  const wheels = rig.shell.obstacles.filter((o) => o.kind === "wheelArch").map((o) => wheelUnder(o.box));
  const lowO = Math.min(...boxes.map((b) => other(b.at)), ...(view === "side" ? wheels.map((w) => w.centre.zM - w.radiusM) : []));
  const highO = Math.max(...boxes.map((b) => other(b.at) + other(b.size)));
  return { lowX, highX, lowO, highO };
}

/** Side over plan on one scale of x, as large as a window allows. */
export function sideOverPlan(rig: Schema["Rig"], size: { width: number; height: number }): Record<View, Frame> | null {
  if (size.width === 0) return null;
  const [side, plan] = [extentOf(rig, "side"), extentOf(rig, "plan")];
  const pad = 12;
  const room = (size.height - 2 * pad) / (side.highO - side.lowO + plan.highO - plan.lowO);
  const scale = Math.max(1, Math.min((size.width - 2 * pad) / (side.highX - side.lowX), room));
  const frame = (extent: typeof side): Frame => ({
    width: size.width,
    height: Math.round((extent.highO - extent.lowO) * scale + pad),
    scale,
    alongM: (side.lowX + side.highX) / 2,
    otherM: (extent.lowO + extent.highO) / 2,
  });
  return { side: frame(side), plan: frame(plan) };
}
