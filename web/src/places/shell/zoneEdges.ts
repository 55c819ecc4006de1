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

const LEAST_M = 0.02;

/** Planes that an edge may snap to: walls, floor, arches and other zones. */
function planesOf(rig: Rig, zoneId: string, axis: keyof Xyz): number[] {
  const { body, obstacles, zones } = rig.shell;
  const boxes = [body, ...obstacles.map((o) => o.box), ...zones.filter((z) => z.id !== zoneId).map((z) => z.box)];
  return boxes.flatMap((b) => [b.at[axis], b.at[axis] + b.size[axis]]);
}

/** The box of a zone with one edge led to a place: to the nearest plane within reach, else to a whole step. A zone keeps some thickness. */
export function withEdge(rig: Rig, zoneId: string, edge: Edge, toM: number, reachM: number, step: number) {
  const box = rig.shell.zones.find((z) => z.id === zoneId)?.box;
  if (!box) return null;
  const { axis, high } = edge;
  const near = planesOf(rig, zoneId, axis).reduce(
    (best, p) => (Math.abs(p - toM) < Math.abs(best - toM) ? p : best),
    Number.POSITIVE_INFINITY,
  );
  const at = Math.round((Math.abs(near - toM) <= reachM ? near : Math.round(toM / step) * step) * 10_000) / 10_000;
  const [low, far] = [box.at[axis], box.at[axis] + box.size[axis]];
  const [from, to] = high ? [low, Math.max(low + LEAST_M, at)] : [Math.min(far - LEAST_M, at), far];
  const kept = (m: number) => Math.round(m * 10_000) / 10_000;
  return { at: { ...box.at, [axis]: kept(from) }, size: { ...box.size, [axis]: kept(to - from) } };
}
