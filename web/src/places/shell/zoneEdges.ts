import type { Rig, Xyz } from "../../document/geometry";
import { axesOf, type Look } from "../../drawing/projection";

export type Edge = { axis: keyof Xyz; high: boolean };

/** Edges of a zone that a view shows, as axes of the vehicle. */
export const edgesOf = (view: Look): Edge[] => {
  const { right, up } = axesOf[view];
  return [
    { axis: right, high: false },
    { axis: right, high: true },
    { axis: up, high: false },
    { axis: up, high: true },
  ];
};

export const LEAST_M = 0.02;

/** Planes that an edge may snap to: walls, floor, arches and other zones. */
function planesOf(rig: Rig, zoneId: string, axis: keyof Xyz): number[] {
  const { body, obstacles, zones } = rig.shell;
  const boxes = [body, ...obstacles.map((o) => o.box), ...zones.filter((z) => z.id !== zoneId).map((z) => z.box)];
  return boxes.flatMap((b) => [b.at[axis], b.at[axis] + b.size[axis]]);
}

/** A place on an axis: the nearest plane within reach, else a whole step. */
export function snapped(rig: Rig, zoneId: string, axis: keyof Xyz, toM: number, reachM: number, step: number) {
  const near = planesOf(rig, zoneId, axis).reduce(
    (best, p) => (Math.abs(p - toM) < Math.abs(best - toM) ? p : best),
    Number.POSITIVE_INFINITY,
  );
  return kept(Math.abs(near - toM) <= reachM ? near : Math.round(toM / step) * step);
}

const kept = (m: number) => Math.round(m * 10_000) / 10_000;

/** The box of a zone with one edge led to a place. A zone keeps some thickness. */
export function withEdge(rig: Rig, zoneId: string, edge: Edge, toM: number, reachM: number, step: number) {
  const box = rig.shell.zones.find((z) => z.id === zoneId)?.box;
  if (!box) return null;
  const { axis, high } = edge;
  const at = snapped(rig, zoneId, axis, toM, reachM, step);
  const [low, far] = [box.at[axis], box.at[axis] + box.size[axis]];
  const [from, to] = high ? [low, Math.max(low + LEAST_M, at)] : [Math.min(far - LEAST_M, at), far];
  return { at: { ...box.at, [axis]: kept(from) }, size: { ...box.size, [axis]: kept(to - from) } };
}
