import type { Schema } from "../api/client";
import { boxAround, plus, towards } from "../document/geometry";

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

export interface Wheel {
  centre: Point3;
  radiusM: number;
}

/** Wheels as seen from the side: under each arch at the kerb, and where the axles are said to be. They are a sign of which way is down, no measure. */
export function wheelsOf(shell: Schema["Shell"]): Wheel[] {
  const under = shell.obstacles
    .filter((o) => o.kind === "wheelArch")
    .map(({ box }) => {
      const radiusM = Math.min(0.42, box.size.xM * 0.4);
      return { centre: { xM: box.at.xM + box.size.xM / 2, yM: box.at.yM, zM: box.at.zM + box.size.zM - 0.05 - radiusM }, radiusM };
    });
  const height = under[0]?.centre.zM ?? -0.25;
  const radiusM = under[0]?.radiusM ?? 0.36;
  const { axles } = shell;
  const said = axles && shell.front !== "drawbar" ? [axles.frontXM, axles.frontXM - axles.wheelbaseM] : [];
  const front =
    said.length === 0 && under.length > 0 && shell.front && shell.front !== "drawbar" ? [shell.body.at.xM + shell.body.size.xM + 0.75] : [];
  const more = [...said, ...front].filter((x) => !under.some((w) => Math.abs(w.centre.xM - x) < 2 * w.radiusM));
  return [...under, ...more.map((xM) => ({ centre: { xM, yM: shell.body.at.yM, zM: height }, radiusM }))];
}

/** How far what is before the load bay reaches, by what it is, m. It is drawn, and measures nothing. */
export const frontDeepM: Record<NonNullable<Schema["VehicleFront"]>, number> = { bonnet: 1.5, flatCab: 1.25, drawbar: 1.1 };
const frontBox = ({ body, front }: Schema["Shell"]): Box3[] =>
  front ? [{ at: { ...body.at, xM: body.at.xM + body.size.xM }, size: { ...body.size, xM: frontDeepM[front] } }] : [];

/** All of a vehicle that is drawn: body, cab or drawbar, rooms, parts, runs and wheels. */
export function vehicleOf(rig: Schema["Rig"]): Box3 {
  const wheels = wheelsOf(rig.shell).map(({ centre, radiusM: r }) => ({
    at: { xM: centre.xM - r, yM: centre.yM, zM: centre.zM - r },
    size: { xM: 2 * r, yM: 0, zM: 2 * r },
  }));
  const boxes = [rig.shell.body, ...frontBox(rig.shell), ...rig.shell.zones.map((z) => z.box), ...rig.parts.map((p) => p.box), ...wheels];
  return boxAround([...boxes.flatMap((b) => [b.at, plus(b.at, b.size)]), ...rig.runs.flatMap((r) => r.bends.map((b) => b.at))]);
}

/** Extent of what a thumbnail shows of a rig, metres: body, rooms, parts and wheels. */
export function extentOf(rig: Schema["Rig"], view: Look) {
  const { at, size } = vehicleOf(rig);
  const { right, up } = axesOf[view];
  return { lowX: at[right], highX: at[right] + size[right], lowO: at[up], highO: at[up] + size[up] };
}

/** All of a vehicle in a window. */
export function wholeFrame(rig: Schema["Rig"], view: View, { width, height }: { width: number; height: number }, pad = 12): Frame {
  const { lowX, highX, lowO, highO } = extentOf(rig, view);
  return {
    width,
    height,
    scale: Math.max(4, Math.min((width - 2 * pad) / (highX - lowX), (height - 2 * pad) / (highO - lowO))),
    alongM: (lowX + highX) / 2,
    otherM: (lowO + highO) / 2,
  };
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
