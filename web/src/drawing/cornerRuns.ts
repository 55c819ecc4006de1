import type { Schema } from "../api/client";
import type { Xyz } from "../document/geometry";
import type { Way } from "../document/way";
import type { Brush } from "./brushes";
import type { Eye } from "./corner";
import type { Piece } from "./cornerPieces";
import type { Owner } from "./cornerScene";
import { line } from "./cornerSolids";
import { type Lens, lineColour } from "./lens";
import { part as partOfLine } from "./projection";
import { type Stroke, strokes } from "./services";
import { hanging, spansOf } from "./stays";
import { colourOf, cssOf } from "./temperature";

/** What is known of the water, by run and part, and what is in hand. */
export interface Waters {
  lens: Lens;
  drains: Map<string, Schema["RunDrain"]>;
  shares: Map<string, number>;
  rungs: Map<string, Schema["Rung"]>;
  pieces: Map<string | null, Schema["Rung"][]>;
  numbers: Schema["TradeNumbers"];
  /** Whether the answers are about the run as it lies. */
  current(runId: string): boolean;
  chosenRuns: ReadonlySet<string>;
  chosenParts: ReadonlySet<string>;
  /** What belongs to what is selected; the rest is pale. */
  way: Way | null;
}

/** What one part or run is painted from, besides where it is. */
export interface Look {
  chosen: boolean;
  drain: Schema["RunDrain"] | undefined;
  rungs: Schema["Rung"][];
  /** How full of water that stays. */
  share: number;
  lens: Lens;
  pale: boolean;
}

const noRungs: Schema["Rung"][] = [];

export function lookOf({ key }: Piece<Owner>, w: Waters): Look {
  const cold = w.lens === "cold";
  if (key.kind === "part") {
    const rung = cold ? w.rungs.get(key.part.id) : undefined;
    const share = w.lens === "drain" ? (w.shares.get(key.part.id) ?? 0) : 0;
    const pale = w.way !== null && !w.way.parts.has(key.part.id);
    return { chosen: w.chosenParts.has(key.part.id), drain: undefined, rungs: rung ? [rung] : noRungs, share, lens: w.lens, pale };
  }
  const current = w.current(key.run.id);
  return {
    chosen: w.chosenRuns.has(key.run.id),
    drain: current && w.lens === "drain" ? w.drains.get(key.run.id) : undefined,
    rungs: current && cold ? (w.pieces.get(key.run.id) ?? noRungs) : noRungs,
    share: 0,
    lens: w.lens,
    pale: w.way !== null && !w.way.runs.has(key.run.id),
  };
}

export const sameLook = (a: Look, b: Look) =>
  a.chosen === b.chosen &&
  a.drain === b.drain &&
  a.share === b.share &&
  a.lens === b.lens &&
  a.pale === b.pale &&
  a.rungs.length === b.rungs.length &&
  a.rungs.every((r, i) => r === b.rungs[i]);

/** From where it is painted, and how closely. */
export interface Sight {
  eye: Eye;
  /** Near enough for gaps where lines cross, inner lines and shaded faces to be seen. */
  fine: boolean;
  numbers: Schema["TradeNumbers"];
}

/** While it turns. */
const thin: Stroke[] = [{ width: 2, cap: "butt" }];

export function paintRun(
  out: Brush,
  piece: Extract<Piece<Owner>, { kind: "line" }>,
  { run, index }: Extract<Owner, { kind: "run" }>,
  { chosen, drain, rungs, lens }: Look,
  { eye, fine, numbers }: Sight,
) {
  const weight = chosen ? 1.3 : 1;
  const course = [[eye.px(piece.a), eye.px(piece.b)]];
  const rung = rungAt(rungs, piece.a, piece.b);
  const plain = chosen && lens !== "water" ? "var(--ink)" : lineColour(lens, run.service);
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

export const mid = (a: Xyz, b: Xyz): Xyz => ({ xM: (a.xM + b.xM) / 2, yM: (a.yM + b.yM) / 2, zM: (a.zM + b.zM) / 2 });
