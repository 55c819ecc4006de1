import type { Schema } from "../api/client";
import { plus, type Xyz } from "../document/geometry";
import { type Brush, type Path, PathBrush } from "./brushes";
import { type Eye, facesOf, roundOf } from "./corner";
import { inOrder, type Piece, type Scene } from "./cornerOrder";
import type { CornerScene, Owner } from "./cornerScene";
import { area, line, paintFaces, paintPicture, paintWater, SPECK_PX } from "./cornerSolids";
import { part as partOfLine } from "./projection";
import { type Stroke, strokes } from "./services";
import { solidOf } from "./solids";
import { hanging, spansOf } from "./stays";
import { colourOf, cssOf } from "./temperature";

/** What is known of the water, by run and part, and what is in hand. */
export interface Waters {
  lens: "drain" | "cold";
  drains: Map<string, Schema["RunDrain"]>;
  shares: Map<string, number>;
  rungs: Map<string, Schema["Rung"]>;
  pieces: Map<string | null, Schema["Rung"][]>;
  numbers: Schema["TradeNumbers"];
  /** Whether the answers are about the run as it lies. */
  current(runId: string): boolean;
  chosenRuns: ReadonlySet<string>;
  chosenParts: ReadonlySet<string>;
}

/** What one part or run is painted from, besides where it is. */
interface Look {
  chosen: boolean;
  drain: Schema["RunDrain"] | undefined;
  rungs: Schema["Rung"][];
  /** How full of water that stays. */
  share: number;
}

const noRungs: Schema["Rung"][] = [];

function lookOf({ key }: Piece<Owner>, w: Waters): Look {
  const cold = w.lens === "cold";
  if (key.kind === "part") {
    const rung = cold ? w.rungs.get(key.part.id) : undefined;
    const share = cold ? 0 : (w.shares.get(key.part.id) ?? 0);
    return { chosen: w.chosenParts.has(key.part.id), drain: undefined, rungs: rung ? [rung] : noRungs, share };
  }
  const current = w.current(key.run.id);
  return {
    chosen: w.chosenRuns.has(key.run.id),
    drain: current && !cold ? w.drains.get(key.run.id) : undefined,
    rungs: current && cold ? (w.pieces.get(key.run.id) ?? noRungs) : noRungs,
    share: 0,
  };
}

const sameLook = (a: Look, b: Look) =>
  a.chosen === b.chosen &&
  a.drain === b.drain &&
  a.share === b.share &&
  a.rungs.length === b.rungs.length &&
  a.rungs.every((r, i) => r === b.rungs[i]);

/** From where it is painted, and how closely. */
interface Sight {
  eye: Eye;
  /** Near enough for gaps where lines cross, inner lines and shaded faces to be seen. */
  fine: boolean;
  numbers: Schema["TradeNumbers"];
}

/** While it turns. */
const thin: Stroke[] = [{ width: 2, cap: "butt" }];

function paintRun(
  out: Brush,
  piece: Extract<Piece<Owner>, { kind: "line" }>,
  { run, index }: Extract<Owner, { kind: "run" }>,
  { chosen, drain, rungs }: Look,
  { eye, fine, numbers }: Sight,
) {
  const weight = chosen ? 1.3 : 1;
  const course = [[eye.px(piece.a), eye.px(piece.b)]];
  const rung = rungAt(rungs, piece.a, piece.b);
  const plain = chosen ? "var(--ink)" : "var(--pipe)";
  const colour = !rung ? plain : rung.morningIce > 0 ? "url(#ice-hatch)" : cssOf(colourOf(numbers, rung.morningC));
  const lines = strokes[run.service];
  // A gap where it passes over another.
  if (fine) out.lines(line("var(--panel)", Math.max(...lines.map((l) => l.width)) * weight + 3, undefined, "butt"), course);
  for (const { width, dash, cap, hollow } of fine ? lines : thin)
    out.lines(line(hollow ? "var(--panel)" : colour, width * (fine ? weight : 1), dash?.join(" "), cap), course);
  const station = drain?.stations[index];
  if (!station) return;
  const spans = spansOf(station);
  for (const [span, dash] of [[spans.pool, undefined] as const, [spans.hangs, hanging(1).strokeDasharray] as const]) {
    const wet = span && within(piece, station, drain?.stations[index + 1], span);
    if (wet) out.lines(line("var(--stays)", 8, dash, "round"), [wet.map(eye.px)]);
  }
}

/** The part of a piece that lies in a span of its length. */
function within(
  piece: { a: Xyz; b: Xyz },
  from: Schema["Station"],
  to: Schema["Station"] | undefined,
  span: [number, number],
): Xyz[] | null {
  if (!to) return null;
  const along = (p: Xyz) => {
    const d = { x: to.at.xM - from.at.xM, y: to.at.yM - from.at.yM, z: to.at.zM - from.at.zM };
    const square = d.x * d.x + d.y * d.y + d.z * d.z;
    return square === 0 ? 0 : ((p.xM - from.at.xM) * d.x + (p.yM - from.at.yM) * d.y + (p.zM - from.at.zM) * d.z) / square;
  };
  const [a, b] = [along(piece.a), along(piece.b)];
  const [low, high] = [Math.max(Math.min(a, b), span[0]), Math.min(Math.max(a, b), span[1])];
  return high > low ? partOfLine(from.at, to.at, low, high) : null;
}

/** The rung whose course a piece lies on. */
function rungAt(rungs: Schema["Rung"][], a: Xyz, b: Xyz) {
  if (rungs.length < 2) return rungs[0];
  const at = mid(a, b);
  const far = (r: Schema["Rung"]) =>
    Math.min(
      ...r.course.slice(1).map((q, i) => {
        const p = r.course[i] as Xyz;
        const [dx, dy, dz] = [q.xM - p.xM, q.yM - p.yM, q.zM - p.zM];
        const square = dx * dx + dy * dy + dz * dz;
        const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((at.xM - p.xM) * dx + (at.yM - p.yM) * dy + (at.zM - p.zM) * dz) / square));
        return Math.hypot(at.xM - p.xM - t * dx, at.yM - p.yM - t * dy, at.zM - p.zM - t * dz);
      }),
    );
  return rungs.reduce((x, y) => (far(y) < far(x) ? y : x));
}

function paintPart(
  out: Brush,
  piece: Piece<Owner>,
  { part, look }: Extract<Owner, { kind: "part" }>,
  { chosen, rungs, share }: Look,
  { eye, fine, numbers }: Sight,
) {
  const stroke = chosen ? 2.4 : 1.1;
  if (piece.kind === "line") {
    const at = eye.px(piece.a);
    if (look === "drain") {
      const r = chosen ? 9 : 7;
      const top = at.y - r / 2;
      const funnel = [
        { x: at.x - r, y: top },
        { x: at.x + r, y: top },
        { x: at.x, y: top + r * 1.3 },
      ];
      out.lines(area("var(--ink)", "var(--panel)", 1), [funnel], true);
    } else if (look === "joint") out.ring(area("var(--ink)"), at, chosen ? 5 : 2.6);
    else out.ring(area("var(--panel)", "var(--ink)", stroke), at, 4);
    return;
  }
  const [rung] = rungs;
  const iced = rung !== undefined && rung.morningIce > 0;
  const tint = rung && area(iced ? "url(#ice-hatch)" : cssOf(colourOf(numbers, rung.morningC)), "none", 0, iced ? 1 : 0.35);
  const far = (Math.max(piece.high.xM - piece.low.xM, piece.high.yM - piece.low.yM, piece.high.zM - piece.low.zM) * eye.scale) / 2;
  if (far < SPECK_PX && !chosen) {
    const { x, y } = eye.px(mid(piece.low, piece.high));
    const half = Math.max(1, far);
    const square = [
      { x: x - half, y: y - half },
      { x: x + half, y: y - half },
      { x: x + half, y: y + half },
      { x: x - half, y: y + half },
    ];
    out.lines(tint ? { ...tint, opacity: 1 } : area(share > 0.5 ? "var(--stays)" : "var(--ink)"), [square], true);
    return;
  }
  const solid = fine && solidOf(part);
  if (solid) {
    for (const shape of inOrder(solid, eye)) {
      if (shape.key !== "box") {
        const { outline, end } = roundOf(shape, eye, `${shape.key}M`);
        out.lines(area("var(--sunk)", "var(--ink)", stroke), [outline], true);
        out.lines(area("var(--panel)", "var(--ink)", stroke * 0.8), [end], true);
        if (tint) out.lines(tint, [outline], true);
        continue;
      }
      const sides = facesOf(shape, eye);
      paintFaces(out, sides, eye, stroke);
      paintWater(out, shape, (piece.high.zM - piece.low.zM) * share + piece.low.zM, eye);
      if (tint)
        out.lines(
          tint,
          sides.map((f) => f.corners.map(eye.px)),
          true,
        );
    }
    return;
  }
  if (look === "cylinder" && fine) {
    const { outline, end } = roundOf(piece, eye);
    out.lines(area("var(--sunk)", "var(--ink)", stroke), [outline], true);
    out.lines(area("var(--panel)", "var(--ink)", stroke * 0.8), [end], true);
    if (tint) out.lines(tint, [outline], true);
    paintPicture(out, piece, part.stock, eye);
    return;
  }
  const faces = facesOf(piece, eye);
  const seen = faces.map((f) => f.corners.map(eye.px));
  // From afar a shaded side is a pixel or two.
  if (fine) paintFaces(out, faces, eye, stroke);
  else out.lines(area("var(--panel)", "var(--ink)", stroke), seen, true);
  if (share > 0.002) paintWater(out, piece, piece.low.zM + (piece.high.zM - piece.low.zM) * share, eye);
  if (look === "bowl") {
    const top = faces.find((f) => f.axis === "zM" && eye.towards.zM > 0);
    if (top) out.lines(area("var(--sunk)", "var(--ink)", stroke * 0.8), [inset(top.corners).map(eye.px)], true);
  }
  if (tint) out.lines(tint, seen, true);
  if (fine && look === "body") paintPicture(out, piece, part.stock, eye);
}

const mid = (a: Xyz, b: Xyz): Xyz => ({ xM: (a.xM + b.xM) / 2, yM: (a.yM + b.yM) / 2, zM: (a.zM + b.zM) / 2 });

const inset = (corners: Xyz[]) => {
  const centre = mid(corners[0] as Xyz, corners[2] as Xyz);
  return corners.map((c) => ({ xM: centre.xM + (c.xM - centre.xM) * 0.78, yM: centre.yM + (c.yM - centre.yM) * 0.78, zM: c.zM }));
};

const shellOf = ({ body }: Schema["Shell"]) => ({ low: body.at, high: plus(body.at, body.size) });

/** Back walls, what is on the far side of the floor, the floor, what is on the near side, drop lines of what is in hand, edges of the walls in front. */
function compose(
  out: Brush,
  rig: Schema["Rig"],
  scene: CornerScene,
  drops: Xyz[],
  eye: Eye,
  group: (half: Scene<Owner>) => void,
  loose: () => void,
) {
  const shell = shellOf(rig.shell);
  const walls = (from: Eye) => facesOf(shell, from).flatMap((f) => (f.axis === "zM" ? [] : [f.corners.map(eye.px)]));
  // Walls are ghosts: those behind are tinted, those in front are only their edges.
  const away = { ...eye, towards: { xM: -eye.towards.xM, yM: -eye.towards.yM, zM: -eye.towards.zM } };
  for (const wall of walls(away)) out.lines(area("var(--sunk)", "var(--strong)", 1, 0.4), [wall], true);
  const above = eye.towards.zM > 0;
  group(above ? scene.under : scene.over);
  paintFloor(out, rig.shell, eye);
  group(above ? scene.over : scene.under);
  loose();
  for (const p of drops) {
    const foot = eye.px({ ...p, zM: 0 });
    out.lines(line("var(--strong)", 1, "2 3", "butt"), [[eye.px(p), foot]]);
    out.ring(area("var(--strong)"), foot, 2);
  }
  for (const wall of walls(eye)) out.lines({ fill: "none", stroke: "var(--rule)", width: 1, dash: "4 4" }, [wall], true);
}

function paintFloor(out: Brush, { body, zones, obstacles }: Schema["Shell"], eye: Eye) {
  out.lines(area("var(--panel)", "var(--ink)", 1.3, 0.72), [base(body, 0).map(eye.px)], true);
  for (const { kind, box } of zones)
    if (kind !== "living" && box.at.zM + box.size.zM > 0)
      out.lines(area("var(--sunk)", "var(--strong)", 0.7, 0.8), [base(box, Math.max(0, box.at.zM)).map(eye.px)], true);
  for (const { box } of obstacles) {
    const faces = facesOf({ low: box.at, high: plus(box.at, box.size) }, eye);
    out.lines(
      area("url(#solid-hatch)", "var(--strong)", 0.8, 1),
      faces.map((f) => f.corners.map(eye.px)),
      true,
    );
  }
}

function paintPiece(out: Brush, piece: Piece<Owner>, look: Look, sight: Sight) {
  if (piece.key.kind === "part") paintPart(out, piece, piece.key, look, sight);
  else paintRun(out, piece as Extract<Piece<Owner>, { kind: "line" }>, piece.key, look, sight);
}

/** A scene as a drawing, seen from one place. What is painted once is kept: when something is moved only that is painted anew. */
export class CornerPicture {
  private readonly marks = new WeakMap<Piece<Owner>, { look: Look; paths: Path[] }>();
  private readonly orders = new WeakMap<Scene<Owner>, Piece<Owner>[]>();
  private readonly sight: Sight;

  constructor(eye: Eye, fine: boolean, numbers: Schema["TradeNumbers"]) {
    this.sight = { eye, fine, numbers };
  }

  /** Paths from back to front, and the pieces in the same order. */
  paint(rig: Schema["Rig"], scene: CornerScene, drops: Xyz[], w: Waters): { paths: Path[]; order: Piece<Owner>[] } {
    const out = new PathBrush();
    const order: Piece<Owner>[] = [];
    const looks = new Map<unknown, Look>();
    const put = (piece: Piece<Owner>) => {
      order.push(piece);
      const thing = thingOf(piece);
      let look = looks.get(thing);
      if (!look) {
        look = lookOf(piece, w);
        looks.set(thing, look);
      }
      let mark = this.marks.get(piece);
      if (!mark || !sameLook(mark.look, look)) {
        const brush = new PathBrush();
        paintPiece(brush, piece, look, this.sight);
        mark = { look, paths: brush.paths };
        this.marks.set(piece, mark);
      }
      out.again(mark.paths);
    };
    compose(
      out,
      rig,
      scene,
      drops,
      this.sight.eye,
      (half) => {
        let pieces = this.orders.get(half);
        if (!pieces) {
          pieces = inOrder(half, this.sight.eye);
          this.orders.set(half, pieces);
        }
        for (const piece of pieces) if (!scene.gone.has(thingOf(piece))) put(piece);
      },
      () => scene.loose.forEach(put),
    );
    return { paths: out.paths, order };
  }
}

const thingOf = ({ key }: Piece<Owner>) => (key.kind === "part" ? key.part : key.run);

/** Paints a scene that is being turned: without details, and what no plane divides in the order in which it was last put. */
export function paintTurning(out: Brush, rig: Schema["Rig"], scene: CornerScene, drops: Xyz[], eye: Eye, w: Waters) {
  const sight = { eye, fine: false, numbers: w.numbers };
  const put = (piece: Piece<Owner>) => {
    if (!scene.gone.has(thingOf(piece))) paintPiece(out, piece, lookOf(piece, w), sight);
  };
  compose(
    out,
    rig,
    scene,
    drops,
    eye,
    (half) => inOrder(half, eye, true).forEach(put),
    () => {
      for (const piece of scene.loose) paintPiece(out, piece, lookOf(piece, w), sight);
    },
  );
}

const base = ({ at, size }: Schema["Box"], zM: number): Xyz[] => [
  { xM: at.xM, yM: at.yM, zM },
  { xM: at.xM + size.xM, yM: at.yM, zM },
  { xM: at.xM + size.xM, yM: at.yM + size.yM, zM },
  { xM: at.xM, yM: at.yM + size.yM, zM },
];
