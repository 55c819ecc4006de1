import type { Schema } from "../api/client";
import type { RunPoint } from "../document/geometry";
import { volumeOf } from "../document/geometry";
import type { Brush, Style } from "./brushes";
import { area, line } from "./cornerSolids";
import { glyphLines } from "./glyphLines";
import { type Lens, lineColour } from "./lens";
import {
  type Frame,
  frontDeepM,
  type Look,
  type Px,
  part as partOfLine,
  rectOf,
  toPx,
  type View,
  type Wheel,
  wheelsOf,
} from "./projection";
import { strokes } from "./services";
import { hanging, spansOf } from "./stays";
import { colourOf, cssOf, marksOf } from "./temperature";

type Rect = { x: number; y: number; width: number; height: number };
const GLYPH_PX = 28;

/** What a drawing from above or from a side is painted with, besides the thing itself. */
export interface Sheet {
  view: View;
  frame: Frame;
  lens: Lens;
  numbers: Schema["TradeNumbers"];
  /** A thumbnail: fewer and thinner marks. */
  bare: boolean;
}

export interface PartMark {
  part: Schema["Part"];
  look: Schema["PartLook"];
  rung: Schema["Rung"] | undefined;
  /** How full of water that stays. */
  share: number;
  chosen: boolean;
  /** Not on the way of what is selected. */
  pale: boolean;
}

export interface RunMark {
  run: Schema["Run"];
  course: RunPoint[];
  drain: Schema["RunDrain"] | undefined;
  rungs: Schema["Rung"][];
  /** How far water gets, under the water lens. */
  reach: Schema["WaterReach"] | undefined;
  chosen: boolean;
  pale: boolean;
}

const cornersOf = ({ x, y, width, height }: Rect): Px[] => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + height },
  { x, y: y + height },
];
const box = (out: Brush, style: Style, rect: Rect) => out.lines(style, [cornersOf(rect)], true);

/** The body with its wheels and cab, its rooms, and what is in the way. Wheels and bumper are only signs of which way the vehicle stands. */
export function paintShell(out: Brush, shell: Schema["Shell"], view: Look, frame: Frame, bare: boolean, zoneId: string | null) {
  const body = rectOf(view, frame, shell.body);
  if (view !== "rear" && shell.front) paintFront(out, shell.front, body, view, frame, bare);
  if (view === "side") for (const at of wheelsOf(shell)) paintWheel(out, at, frame);
  box(out, area("var(--panel)", "var(--ink)", bare ? 1 : 1.5), body);
  for (const zone of [...shell.zones].sort((a, b) => volumeOf(b.box) - volumeOf(a.box))) {
    const chosen = zone.id === zoneId;
    if (!chosen && (zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor"))) continue;
    const style = area("var(--sunk)", chosen ? "var(--ink)" : "var(--strong)", chosen ? 2 : 0.75, 0.75);
    box(out, { ...style, dash: chosen ? "6 3" : "2 3" }, rectOf(view, frame, zone.box));
  }
  for (const o of shell.obstacles) box(out, area("url(#solid-hatch)", "var(--strong)", 0.75, 1), rectOf(view, frame, o.box));
}

function paintWheel(out: Brush, { centre, radiusM }: Wheel, frame: Frame) {
  const at = toPx("side", frame, centre);
  const r = radiusM * frame.scale;
  out.ring(area("var(--sunk)", "var(--strong)", 1.2), at, r);
  out.ring(area("none", "var(--strong)", 1), at, r * 0.45);
}

/** Outline of what is before the load bay, as shares of its depth (forward) and of the body's height or width; from the side, then from above. */
const fronts: Record<NonNullable<Schema["VehicleFront"]>, { side: [number, number][]; plan: [number, number][] }> = {
  bonnet: {
    side: [
      [0, 0.04],
      [0.3, 0.12],
      [0.55, 0.48],
      [0.94, 0.56],
      [1, 0.72],
      [1, 1.02],
      [0, 1.02],
    ],
    plan: [
      [0, 0.02],
      [0.9, 0.06],
      [1, 0.2],
      [1, 0.8],
      [0.9, 0.94],
      [0, 0.98],
    ],
  },
  flatCab: {
    side: [
      [0, 0.02],
      [0.82, 0.06],
      [0.97, 0.5],
      [1, 0.6],
      [1, 1.04],
      [0, 1.04],
    ],
    plan: [
      [0, 0.01],
      [0.94, 0.03],
      [1, 0.12],
      [1, 0.88],
      [0.94, 0.97],
      [0, 0.99],
    ],
  },
  drawbar: {
    side: [
      [0, 0.98],
      [0.95, 0.98],
      [1, 0.95],
      [1, 1.03],
      [0, 1.03],
    ],
    plan: [
      [0, 0.06],
      [0.95, 0.48],
      [1, 0.48],
      [1, 0.52],
      [0.95, 0.52],
      [0, 0.94],
    ],
  },
};
/** The screen of a cab, from the side. */
const screens: Record<NonNullable<Schema["VehicleFront"]>, [number, number][] | null> = {
  bonnet: [
    [0.08, 0.14],
    [0.27, 0.17],
    [0.46, 0.46],
    [0.08, 0.46],
  ],
  flatCab: [
    [0.35, 0.12],
    [0.78, 0.13],
    [0.9, 0.48],
    [0.35, 0.48],
  ],
  drawbar: null,
};

function paintFront(out: Brush, front: NonNullable<Schema["VehicleFront"]>, body: Rect, view: View, frame: Frame, bare: boolean) {
  const deep = frontDeepM[front] * frame.scale;
  const at = (shares: [number, number][]) => shares.map(([x, y]) => ({ x: body.x + body.width + x * deep, y: body.y + y * body.height }));
  out.lines(area("var(--ground)", "var(--strong)", bare ? 0.8 : 1.2), [at(fronts[front][view])], true);
  const screen = view === "side" && screens[front];
  if (screen) out.lines(area("var(--sunk)", "var(--strong)", bare ? 0.5 : 0.8), [at(screen)], true);
}

/** A part: what it is from afar, its box and its picture from near, and the water in it. */
export function paintPart(out: Brush, mark: PartMark, { view, frame, numbers, bare }: Sheet) {
  const { part, rung, share, chosen, look } = mark;
  const rect = rectOf(view, frame, part.box);
  const mid = { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 };
  // Under the floor, seen from above.
  const hidden = view === "plan" && part.box.at.zM + part.box.size.zM <= 0;
  const width = chosen ? 2.5 : bare ? 0.8 : 1.25;
  if (look === "joint") return out.ring(area("var(--ink)"), mid, bare ? 1.5 : chosen ? 5 : 3);
  if (look === "openEnd") return out.ring(area("var(--panel)", "var(--ink)", width), mid, bare ? 2 : chosen ? 6 : 4);
  if (look === "drain") {
    const r = bare ? 4 : chosen ? 9 : 7;
    const top = mid.y - r / 2;
    const funnel = [
      { x: mid.x - r, y: top },
      { x: mid.x + r, y: top },
      { x: mid.x, y: top + r * 1.3 },
    ];
    return out.lines(area("var(--ink)", "var(--panel)", 1), [funnel], true);
  }
  box(out, area("var(--panel)"), rect);
  // Water stands from the bottom up; from above it is as deep a tint as it is full.
  if (share > 0.002) {
    const water = view === "plan" ? rect : { ...rect, y: rect.y + rect.height * (1 - share), height: rect.height * share };
    box(out, area("var(--stays)", "none", 0, view === "plan" ? 0.08 + 0.34 * share : 0.42), water);
  }
  if (rung) {
    const iced = rung.morningIce > 0;
    box(out, area(iced ? "url(#ice-hatch)" : cssOf(colourOf(numbers, rung.morningC)), "none", 0, iced ? 1 : 0.35), rect);
  }
  box(out, { ...area("none", "var(--ink)", width), ...(hidden && { dash: "4 3" }) }, rect);
  // Where there is room for it a part shows what it is.
  if (!bare && Math.min(rect.width, rect.height) > GLYPH_PX) {
    const placed = glyphLines(part.stock).map((l) => l.map(({ x, y }) => ({ x: mid.x - 12 + x, y: mid.y - 12 + y })));
    if (placed.length > 0) out.lines(line("var(--muted)", 1.4), placed);
  }
}

/** A run: its line by what it carries, the water that stays in it, what holds it, which way it falls, how cold it is. */
export function paintRun(out: Brush, mark: RunMark, { view, frame, lens, numbers, bare }: Sheet) {
  const { run, course, drain, rungs, chosen, reach } = mark;
  if (course.length === 0) return;
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const laid = course.map((p) => px(p.at));
  const weight = bare ? 0.6 : 1;
  if (chosen && !bare) out.lines({ ...line("var(--ink)", 15), opacity: 0.16 }, [laid]);
  // A dead end is pale; where water flows the line is broad.
  const colour = reach === "apart" ? "var(--pale)" : lineColour(lens, run.service);
  paintLine(out, laid, run.service, colour, weight * (chosen ? 1.15 : reach === "flows" ? 1.35 : 1));
  if (drain) {
    const wet = (kind: "pool" | "hangs") =>
      drain.stations.flatMap((s, k) => {
        const [from, to] = [course[k], course[k + 1]];
        const span = spansOf(s)[kind];
        return from && to && span ? [partOfLine(from.at, to.at, ...span).map(px)] : [];
      });
    const [pools, beads] = [wet("pool"), wet("hangs")];
    if (pools.length > 0) out.lines(line("var(--stays)", 8 * weight), pools);
    if (beads.length > 0) out.lines(line("var(--stays)", 8 * weight, hanging(weight).strokeDasharray), beads);
  }
  const held = bare ? [] : fixingsOf(run, laid);
  if (held.length > 0) out.lines(line("var(--ink)", 1.8), held);
  const arrows = drain && !bare ? chevrons(drain, laid) : [];
  if (arrows.length > 0) out.lines(line("var(--ink)", 1.6), arrows);
  for (const rung of rungs) {
    const piece = rung.course.map(px);
    if (rung.morningIce > 0) {
      out.lines(line("url(#ice-hatch)", 7 * weight, undefined, "butt"), [piece]);
      continue;
    }
    const cold = colourOf(numbers, rung.morningC, rung.morningIce);
    paintLine(out, piece, run.service, cssOf(cold), weight * 1.2);
    if (!bare)
      marksOf(
        cold,
        piece,
        (l) => out.lines(line("var(--ink)", 1.5), [l]),
        (at) => out.ring(area("none", "var(--ink)", 1.5), at, 3.5),
      );
  }
}

function paintLine(out: Brush, laid: Px[], service: Schema["Service"], colour: string, weight: number) {
  for (const { width, dash, cap, hollow } of strokes[service])
    out.lines(line(hollow ? "var(--panel)" : colour, width * weight, dash?.map((x) => x * weight).join(" "), cap), [laid]);
}

/** What holds a run at its points: a clip is a stroke across it, a grommet a pair of them, as the hole is lined on both sides. */
function fixingsOf(run: Schema["Run"], laid: Px[]): Px[][] {
  return run.bends.flatMap((bend, i) => {
    const [before, at, after] = [laid[i], laid[i + 1], laid[i + 2]];
    if (!bend.fixing || !before || !at || !after) return [];
    const [dx, dy] = [after.x - before.x, after.y - before.y];
    const length = Math.hypot(dx, dy);
    if (length < 1) return [];
    const [ux, uy] = [dx / length, dy / length];
    return (bend.fixing === "clip" ? [0] : [-3, 3]).map((far) => {
      const [x, y] = [at.x + ux * far, at.y + uy * far];
      return [
        { x: x - 7 * uy, y: y + 7 * ux },
        { x: x + 7 * uy, y: y - 7 * ux },
      ];
    });
  });
}

/** Arrowheads along each length that falls, pointing the way its water leaves. */
function chevrons(drain: Schema["RunDrain"], laid: Px[]): Px[][] {
  return drain.stations.flatMap((s, k) => {
    const [from, to] = s.direction > 0 ? [laid[k], laid[k + 1]] : [laid[k + 1], laid[k]];
    if (!from || !to || s.direction === 0 || (s.fall ?? 0) <= 0) return [];
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const count = Math.floor(length / 52);
    return Array.from({ length: count }, (_, i) => headAt(from, to, (i + 1) / (count + 1)));
  });
}

/** An arrowhead on a length, at a share of it. */
export function headAt(from: Px, to: Px, share: number): Px[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const [x, y] = [from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share];
  const wing = (side: number) => ({ x: x - 3.5 * ux - side * 6 * uy, y: y - 3.5 * uy + side * 6 * ux });
  return [wing(1), { x: x + 3.5 * ux, y: y + 3.5 * uy }, wing(-1)];
}
