import type { Schema } from "../api/client";
import { plus, type Xyz } from "../document/geometry";
import { type Brush, PaleBrush, type Path, PathBrush } from "./brushes";
import { type Eye, facesOf, roundOf } from "./corner";
import { inOrder, type Scene } from "./cornerOrder";
import type { Piece } from "./cornerPieces";
import { type Look, lookOf, mid, paintRun, type Sight, sameLook, type Waters } from "./cornerRuns";
import type { CornerScene, Owner } from "./cornerScene";
import { area, line, paintFaces, paintPicture, paintWater, SPECK_PX } from "./cornerSolids";
import { solidOf } from "./solids";
import { colourOf, cssOf } from "./temperature";

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

function paintPiece(onto: Brush, piece: Piece<Owner>, look: Look, sight: Sight) {
  const out = look.pale ? new PaleBrush(onto) : onto;
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
