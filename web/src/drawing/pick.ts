import { courseOf, plus, type Rig, type Run, towards, type Xyz } from "../document/geometry";
import type { Thing } from "../document/things";
import { type Frame, type Px, rectOf, toPx, type View } from "./projection";

const POINT_PX = 16;
const RUN_PX = 10;
const LEG_PX = 52;

/** Distance from a place to a straight line between two. */
export function fromLine(p: Px, a: Px, b: Px): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / square));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/**
 * What lies under a finger: a point of the run in hand before all else, then small parts, runs, larger parts and zones.
 * `runId`: the run whose points are drawn; `partId`: the part whose ports are.
 */
export function pick(rig: Rig, view: View, frame: Frame, at: Px, runId: string | null, partId: string | null = null): Thing | null {
  const px = (p: Parameters<typeof toPx>[2]) => toPx(view, frame, p);
  let best: { thing: Thing; far: number } | null = null;
  const offer = (thing: Thing, far: number) => {
    if (!best || far < best.far) best = { thing, far };
  };
  for (const run of rig.runs) {
    const course = courseOf(rig, run);
    let before: Px | null = null;
    for (const p of course) {
      const here = px(p.at);
      const far = Math.hypot(here.x - at.x, here.y - at.y);
      // Within reach a point of the run in hand comes before any line.
      if (run.id === runId && far < POINT_PX) offer({ kind: "point", runId: run.id, pointId: p.id }, far / 10 - 10);
      if (before) {
        const line = fromLine(at, before, here);
        if (line < RUN_PX) offer({ kind: "run", runId: run.id }, line);
      }
      before = here;
    }
  }
  for (const part of rig.parts) {
    if (part.id === partId)
      for (const port of part.ports) {
        const here = px(plus(part.box.at, port.offset));
        const far = Math.hypot(here.x - at.x, here.y - at.y);
        if (far < POINT_PX) offer({ kind: "port", partId, portId: port.id }, far / 10 - 10);
      }
    const r = rectOf(view, frame, part.box);
    const grown = Math.max(0, 10 - Math.min(r.width, r.height) / 2);
    const inside = at.x > r.x - grown && at.x < r.x + r.width + grown && at.y > r.y - grown && at.y < r.y + r.height + grown;
    // A small part lies on a line as a rule; a large one is behind it.
    if (inside) offer({ kind: "part", partId: part.id }, r.width * r.height < 900 ? 3 : 12 + (r.width * r.height) / 1e6);
  }
  if (best) return (best as { thing: Thing }).thing;
  const zones = rig.shell.zones
    .map((zone) => ({ zone, r: rectOf(view, frame, zone.box) }))
    .filter(({ r }) => at.x > r.x && at.x < r.x + r.width && at.y > r.y && at.y < r.y + r.height)
    .sort((a, b) => a.r.width * a.r.height - b.r.width * b.r.height);
  return zones[0] ? { kind: "zone", zoneId: zones[0].zone.id } : null;
}

/** Middles of the legs of a run that are long enough on the glass to be pulled. */
export function middlesOf(rig: Rig, run: Run, px: (p: Xyz) => Px): { leg: number; at: Xyz; px: Px }[] {
  const course = courseOf(rig, run);
  return course.slice(1).flatMap((p, leg) => {
    const before = (course[leg] as { at: Xyz }).at;
    const [a, b] = [px(before), px(p.at)];
    if (Math.hypot(a.x - b.x, a.y - b.y) < LEG_PX) return [];
    return [{ leg, at: towards(before, p.at, 0.5), px: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } }];
  });
}

/** The leg whose middle lies under a finger. */
export const middleAt = (rig: Rig, run: Run, px: (p: Xyz) => Px, at: Px) =>
  middlesOf(rig, run, px).find((m) => Math.hypot(m.px.x - at.x, m.px.y - at.y) < POINT_PX);

/** All parts and points within a rectangle. */
export function within(rig: Rig, view: View, frame: Frame, a: Px, b: Px): Thing[] {
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const holds = (p: Px) => p.x >= left && p.x <= right && p.y >= top && p.y <= bottom;
  const parts = rig.parts.filter((p) => {
    const r = rectOf(view, frame, p.box);
    return holds({ x: r.x, y: r.y }) && holds({ x: r.x + r.width, y: r.y + r.height });
  });
  const bends = rig.runs.flatMap((run) => run.bends.filter((b2) => holds(toPx(view, frame, b2.at))).map((b2) => ({ run, b2 })));
  return [
    ...parts.map((p) => ({ kind: "part", partId: p.id }) as const),
    ...bends.map(({ run, b2 }) => ({ kind: "point", runId: run.id, pointId: b2.id }) as const),
  ];
}
