import type { Schema } from "../api/client";
import type { Xyz } from "../document/geometry";
import { type Eye, facesOf, inOrder, type Piece, roundOf } from "./corner";
import type { CornerScene, Owner } from "./cornerScene";
import { type Px, part as partOfLine, pathOf } from "./projection";
import { colourOf, type WaterColour } from "./temperature";

/** How one path is painted; what has the same style in a row is one path. */
export interface Style {
  fill: string;
  stroke: string;
  width: number;
  dash?: string;
  opacity?: number;
  cap?: "round" | "butt";
}

/** What is known of the water, by run and part. */
export interface Waters {
  lens: "drain" | "cold";
  drains: Map<string, Schema["RunDrain"]>;
  shares: Map<string, number>;
  rungs: Map<string, Schema["Rung"]>;
  pieces: Map<string | null, Schema["Rung"][]>;
  numbers: Schema["TradeNumbers"];
  /** Whether the answers are about the run as it lies. */
  current(runId: string): boolean;
  /** Near enough for gaps where lines cross, inner lines and shaded faces to be seen. */
  fine: boolean;
  /** The view is being turned. */
  quick: boolean;
  /** From where it was painted last: the order is still that one. */
  again: boolean;
  chosenRuns: ReadonlySet<string>;
  chosenParts: ReadonlySet<string>;
}

const SERVICE: Record<Schema["Service"], { width: number; dash?: string; inner?: boolean; cap: "round" | "butt" }> = {
  cold: { width: 3.4, cap: "round" },
  hot: { width: 4.6, inner: true, cap: "round" },
  waste: { width: 5.6, dash: "8 4", cap: "butt" },
  vent: { width: 2.6, dash: "0.1 5", cap: "round" },
  fill: { width: 3, dash: "14 3 2 3", cap: "butt" },
  coolant: { width: 3.6, dash: "0.1 6", cap: "round" },
  overflow: { width: 2, dash: "6 3", cap: "butt" },
};

const css = (colour: WaterColour) => `var(--${colour})`;
const line = (stroke: string, width: number, dash?: string, cap: "round" | "butt" = "round"): Style => ({
  fill: "none",
  stroke,
  width,
  cap,
  ...(dash && { dash }),
});
const area = (fill: string, stroke = "none", width = 0, opacity?: number): Style => ({
  fill,
  stroke,
  width,
  ...(opacity !== undefined && { opacity }),
});

/** Paths from back to front, each with its style. Names stand in `style` by identity of their text. */
export class Painter {
  readonly paths: { key: string; style: Style; d: string }[] = [];

  add(style: Style, d: string) {
    const key = `${style.fill}|${style.stroke}|${style.width}|${style.dash}|${style.opacity}|${style.cap}`;
    const last = this.paths[this.paths.length - 1];
    if (last?.key === key && style.opacity === undefined) last.d += d;
    else this.paths.push({ key, style, d });
  }
}

const closed = (points: Px[]) => `${pathOf(points)}Z`;
const ring = (at: Px, r: number) => `M${(at.x - r).toFixed(1)} ${at.y.toFixed(1)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0${-2 * r} 0Z`;

function paintRun(
  out: Painter,
  piece: Extract<Piece<Owner>, { kind: "line" }>,
  owner: Extract<Owner, { kind: "run" }>,
  eye: Eye,
  w: Waters,
) {
  const { run, index } = owner;
  const s = SERVICE[run.service];
  const chosen = w.chosenRuns.has(run.id);
  const width = s.width * (chosen ? 1.3 : 1);
  const d = pathOf([eye.px(piece.a), eye.px(piece.b)]);
  const current = w.current(run.id);
  let colour = chosen ? "var(--ink)" : "var(--pipe)";
  if (w.lens === "cold" && current) {
    const rung = rungAt(w.pieces.get(run.id) ?? [], piece.a, piece.b);
    if (rung) colour = rung.morningIce > 0 ? "url(#ice-hatch)" : css(colourOf(w.numbers, rung.morningC));
  }
  // A gap where it passes over another.
  if (w.fine) out.add(line("var(--panel)", width + 3, undefined, "butt"), d);
  out.add(line(colour, w.fine ? width : Math.min(width, 2), w.fine ? s.dash : undefined, s.cap), d);
  if (s.inner && w.fine) out.add(line("var(--panel)", 1.6, undefined, "round"), d);
  if (w.lens === "drain" && current) {
    const station = w.drains.get(run.id)?.stations[index];
    if (station && station.wetTo > station.wetFrom) {
      const wet = wetWithin(piece, station, w.drains.get(run.id)?.stations[index + 1]);
      if (wet) out.add(line("var(--stays)", 8, undefined, "round"), pathOf(wet.map(eye.px)));
    }
  }
}

/** The part of a piece that lies in the wet part of its length. */
function wetWithin(piece: { a: Xyz; b: Xyz }, from: Schema["Station"], to: Schema["Station"] | undefined): Xyz[] | null {
  if (!to) return null;
  const along = (p: Xyz) => {
    const d = { x: to.at.xM - from.at.xM, y: to.at.yM - from.at.yM, z: to.at.zM - from.at.zM };
    const square = d.x * d.x + d.y * d.y + d.z * d.z;
    return square === 0 ? 0 : ((p.xM - from.at.xM) * d.x + (p.yM - from.at.yM) * d.y + (p.zM - from.at.zM) * d.z) / square;
  };
  const [a, b] = [along(piece.a), along(piece.b)];
  const [low, high] = [Math.max(Math.min(a, b), from.wetFrom), Math.min(Math.max(a, b), from.wetTo)];
  return high > low ? partOfLine(from.at, to.at, low, high) : null;
}

/** The rung whose course a piece lies on. */
function rungAt(rungs: Schema["Rung"][], a: Xyz, b: Xyz) {
  if (rungs.length < 2) return rungs[0];
  const mid = { xM: (a.xM + b.xM) / 2, yM: (a.yM + b.yM) / 2, zM: (a.zM + b.zM) / 2 };
  const far = (r: Schema["Rung"]) =>
    Math.min(
      ...r.course.slice(1).map((q, i) => {
        const p = r.course[i] as Xyz;
        const [dx, dy, dz] = [q.xM - p.xM, q.yM - p.yM, q.zM - p.zM];
        const square = dx * dx + dy * dy + dz * dz;
        const t =
          square === 0 ? 0 : Math.min(1, Math.max(0, ((mid.xM - p.xM) * dx + (mid.yM - p.yM) * dy + (mid.zM - p.zM) * dz) / square));
        return Math.hypot(mid.xM - p.xM - t * dx, mid.yM - p.yM - t * dy, mid.zM - p.zM - t * dz);
      }),
    );
  return rungs.reduce((x, y) => (far(y) < far(x) ? y : x));
}

function paintPart(out: Painter, piece: Piece<Owner>, owner: Extract<Owner, { kind: "part" }>, eye: Eye, w: Waters) {
  const { part, look } = owner;
  const chosen = w.chosenParts.has(part.id);
  const stroke = chosen ? 2.4 : 1.1;
  if (piece.kind === "line") {
    const at = eye.px(piece.a);
    if (look === "drain") {
      const r = chosen ? 9 : 7;
      out.add(area("var(--ink)", "var(--panel)", 1), `M${(at.x - r).toFixed(1)} ${(at.y - r / 2).toFixed(1)}h${2 * r}l${-r} ${r * 1.3}z`);
    } else
      out.add(
        area(look === "joint" ? "var(--ink)" : "var(--panel)", "var(--ink)", look === "joint" ? 0 : stroke),
        ring(at, look === "joint" ? (chosen ? 5 : 2.6) : 4),
      );
    return;
  }
  const rung = w.lens === "cold" ? w.rungs.get(part.id) : undefined;
  const tint = rung && (rung.morningIce > 0 ? "url(#ice-hatch)" : css(colourOf(w.numbers, rung.morningC)));
  if (look === "cylinder" && w.fine) {
    const { outline, end } = roundOf(piece, eye);
    out.add(area("var(--sunk)", "var(--ink)", stroke), closed(outline));
    out.add(area("var(--panel)", "var(--ink)", stroke * 0.8), closed(end));
    if (tint) out.add(area(tint, "none", 0, rung && rung.morningIce > 0 ? 1 : 0.35), closed(outline));
    return;
  }
  const faces = facesOf(piece, eye);
  for (const face of faces)
    out.add(area(face.axis === "zM" ? "var(--panel)" : "var(--sunk)", "var(--ink)", stroke), closed(face.corners.map(eye.px)));
  const share = w.lens === "drain" ? (w.shares.get(part.id) ?? 0) : 0;
  if (share > 0.002) {
    const level = { low: piece.low, high: { ...piece.high, zM: piece.low.zM + (piece.high.zM - piece.low.zM) * share } };
    out.add(
      area("var(--stays)", "none", 0, 0.42),
      facesOf(level, eye)
        .map((f) => closed(f.corners.map(eye.px)))
        .join(""),
    );
  }
  if (look === "bowl") {
    const top = faces.find((f) => f.axis === "zM" && eye.towards.zM > 0);
    if (top) out.add(area("var(--sunk)", "var(--ink)", stroke * 0.8), closed(inset(top.corners).map(eye.px)));
  }
  if (tint)
    out.add(area(tint, "none", 0, rung && rung.morningIce > 0 ? 1 : 0.35), faces.map((f) => closed(f.corners.map(eye.px))).join(""));
}

const inset = (corners: Xyz[]) => {
  const mid = { xM: 0, yM: 0, zM: 0 };
  for (const c of corners) for (const a of ["xM", "yM", "zM"] as const) mid[a] += c[a] / corners.length;
  return corners.map((c) => ({ xM: mid.xM + (c.xM - mid.xM) * 0.78, yM: mid.yM + (c.yM - mid.yM) * 0.78, zM: c.zM }));
};

/** The whole picture: back walls, what is on the far side of the floor, the floor, what is on the near side, drop lines of what is in hand. */
export function paint(
  rig: Schema["Rig"],
  scene: CornerScene,
  drops: Xyz[],
  eye: Eye,
  w: Waters,
): { paths: Painter["paths"]; order: Piece<Owner>[] } {
  const out = new Painter();
  const { body, obstacles } = rig.shell;
  const shell = { low: body.at, high: { xM: body.at.xM + body.size.xM, yM: body.at.yM + body.size.yM, zM: body.at.zM + body.size.zM } };
  // Walls are ghosts: those behind are tinted, those in front are only their edges.
  const away = { ...eye, towards: { xM: -eye.towards.xM, yM: -eye.towards.yM, zM: -eye.towards.zM } };
  for (const face of facesOf(shell, away))
    if (face.axis !== "zM") out.add(area("var(--sunk)", "var(--strong)", 1, 0.4), closed(face.corners.map(eye.px)));

  const above = eye.towards.zM > 0;
  const order: Piece<Owner>[] = [];
  const paintPiece = (piece: Piece<Owner>) => {
    order.push(piece);
    if (piece.key.kind === "part") paintPart(out, piece, piece.key, eye, w);
    else paintRun(out, piece as Extract<Piece<Owner>, { kind: "line" }>, piece.key, eye, w);
  };
  const group = (pieces: Piece<Owner>[]) => {
    for (const piece of pieces) {
      if (scene.gone.size > 0 && scene.gone.has(piece.key.kind === "part" ? piece.key.part : piece.key.run)) continue;
      paintPiece(piece);
    }
  };
  const floor = () => {
    const corners = [
      shell.low,
      { ...shell.low, xM: shell.high.xM },
      { ...shell.high, zM: shell.low.zM },
      { ...shell.low, yM: shell.high.yM },
    ].map((p) => ({ ...p, zM: 0 }));
    out.add(area("var(--panel)", "var(--ink)", 1.3, 0.72), closed(corners.map(eye.px)));
    for (const zone of rig.shell.zones)
      if (zone.kind !== "living" && zone.box.at.zM + zone.box.size.zM > 0)
        out.add(area("var(--sunk)", "var(--strong)", 0.7, 0.8), closed(base(zone.box).map(eye.px)));
    for (const o of obstacles) {
      const box = {
        low: o.box.at,
        high: { xM: o.box.at.xM + o.box.size.xM, yM: o.box.at.yM + o.box.size.yM, zM: o.box.at.zM + o.box.size.zM },
      };
      out.add(
        area("url(#solid-hatch)", "var(--strong)", 0.8, 1),
        facesOf(box, eye)
          .map((f) => closed(f.corners.map(eye.px)))
          .join(""),
      );
    }
  };
  const pieces = (half: CornerScene["over"]) => (w.quick ? inBatches(inOrder(half, eye, true)) : inOrder(half, eye, w.again));
  group(pieces(above ? scene.under : scene.over));
  floor();
  group(pieces(above ? scene.over : scene.under));
  for (const piece of scene.loose) paintPiece(piece);
  for (const p of drops) {
    const foot = { ...p, zM: 0 };
    out.add(line("var(--strong)", 1, "2 3", "butt"), pathOf([eye.px(p), eye.px(foot)]));
    out.add(area("var(--strong)"), ring(eye.px(foot), 2));
  }
  for (const face of facesOf(shell, eye))
    if (face.axis !== "zM") out.add({ fill: "none", stroke: "var(--rule)", width: 1, dash: "4 4" }, closed(face.corners.map(eye.px)));
  return { paths: out.paths, order };
}

const BATCH = 48;

/** Neighbours in the order, put together by how they are painted: fewer and longer paths for a view that is being turned. */
function inBatches(order: Piece<Owner>[]): Piece<Owner>[] {
  const rank = ({ kind, key }: Piece<Owner>) => (kind === "box" ? "0" : key.kind === "run" ? `1${key.run.service}` : `2${key.look}`);
  const made: Piece<Owner>[] = [];
  for (let i = 0; i < order.length; i += BATCH) {
    const batch = order.slice(i, i + BATCH).map((piece) => ({ piece, rank: rank(piece) }));
    for (const { piece } of batch.sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0))) made.push(piece);
  }
  return made;
}

const base = (box: Schema["Box"]): Xyz[] => {
  const { at, size } = box;
  const z = Math.max(0, at.zM);
  return [
    { xM: at.xM, yM: at.yM, zM: z },
    { xM: at.xM + size.xM, yM: at.yM, zM: z },
    { xM: at.xM + size.xM, yM: at.yM + size.yM, zM: z },
    { xM: at.xM, yM: at.yM + size.yM, zM: z },
  ];
};
