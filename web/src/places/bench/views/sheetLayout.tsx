import { useRef } from "react";
import { boxAround, middleOf, type Rig, type Xyz } from "../../../document/geometry";
import { axesOf, type Frame, type Px, type View, vehicleOf } from "../../../drawing/projection";
import type { Zoom } from "../viewStore";

const [PAD, HEAD] = [10, 26];
export const GAP = 14;
export const MOST_ZOOM = 14;

/** Where the two drawings lie on the sheet: one scale of x for both. */
export interface Layout {
  side: Frame;
  plan: Frame;
  planTop: number;
  fit: number;
}

/** Side over plan: all of the vehicle, as large as the window allows. */
export function layOut(rig: Rig, zoom: Zoom, size: { width: number; height: number }): Layout {
  const seen = vehicleOf(rig);
  const heightM = seen.size.zM + seen.size.yM;
  // Over each drawing is room for its name and for a mark at its upper edge.
  const room = size.height - GAP - 2 * (PAD + HEAD);
  const fit = Math.max(20, Math.min((size.width - 2 * PAD) / seen.size.xM, room / heightM));
  const sideHeight = Math.max(40, Math.round(PAD + HEAD + (room * seen.size.zM) / heightM));
  const planTop = sideHeight + GAP;
  const scale = fit * zoom.factor;
  const alongM = zoom.xM ?? seen.at.xM + seen.size.xM / 2;
  const down = zoom.factor === 1 ? (HEAD - PAD) / 2 / scale : 0;
  const frame = (height: number, otherM: number): Frame => ({ width: size.width, height, scale, alongM, otherM });
  return {
    side: frame(sideHeight, zoom.zM ?? seen.at.zM + seen.size.zM / 2 + down),
    plan: frame(Math.max(40, size.height - planTop), zoom.yM ?? seen.at.yM + seen.size.yM / 2 + down),
    planTop,
    fit,
  };
}

/** So much is left around what is zoomed to, m. */
const AROUND_M = 0.25;

/** As near as shows all of these places in both views. */
export function zoomAround({ side, plan, fit }: Layout, places: Xyz[]): Zoom {
  const box = boxAround(places, AROUND_M);
  const factor = Math.min(side.width / box.size.xM, side.height / box.size.zM, plan.height / box.size.yM) / fit;
  return { factor: Math.min(MOST_ZOOM, Math.max(1, factor)), ...middleOf(box) };
}

/** Axes that lead right and up. */
export const axes = (view: View) => [axesOf[view].right, axesOf[view].up] as [keyof Xyz, keyof Xyz];

export function Marquee({ a, b }: { a: Px; b: Px }) {
  return (
    <rect
      x={Math.min(a.x, b.x)}
      y={Math.min(a.y, b.y)}
      width={Math.abs(a.x - b.x)}
      height={Math.abs(a.y - b.y)}
      fill="var(--ink)"
      fillOpacity={0.06}
      stroke="var(--ink)"
      strokeDasharray="4 3"
    />
  );
}

/** A pixel turned about the middle of a frame. */
export function turned(p: Px, frame: Frame, deg: number): Px {
  if (deg === 0) return p;
  const [c, s] = [Math.cos((-deg * Math.PI) / 180), Math.sin((-deg * Math.PI) / 180)];
  const [x, y] = [p.x - frame.width / 2, p.y - frame.height / 2];
  return { x: frame.width / 2 + x * c - y * s, y: frame.height / 2 + x * s + y * c };
}

/** The last of equal layouts, so that what hangs on it is not drawn anew for nothing. */
export function useStable(layout: Layout | null): Layout | null {
  const kept = useRef<{ text: string; layout: Layout | null }>({ text: "", layout: null });
  const text = JSON.stringify(layout);
  if (kept.current.text !== text) kept.current = { text, layout };
  return kept.current.layout;
}
