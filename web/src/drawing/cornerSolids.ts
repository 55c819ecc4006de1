import type { Xyz } from "../document/geometry";
import type { Brush, Style } from "./brushes";
import { type Eye, facesOf } from "./corner";
import { glyphLines } from "./glyphLines";

export const line = (stroke: string, width: number, dash?: string, cap: "round" | "butt" = "round"): Style => ({
  fill: "none",
  stroke,
  width,
  cap,
  ...(dash && { dash }),
});
export const area = (fill: string, stroke = "none", width = 0, opacity?: number): Style => ({
  fill,
  stroke,
  width,
  ...(opacity !== undefined && { opacity }),
});

/** Sides in the shade, the lit one over them. */
export function paintFaces(out: Brush, faces: ReturnType<typeof facesOf>, eye: Eye, stroke: number) {
  for (const [fill, level] of [
    ["var(--sunk)", false],
    ["var(--panel)", true],
  ] as const)
    out.lines(
      area(fill, "var(--ink)", stroke),
      faces.filter((f) => (f.axis === "zM") === level).map((f) => f.corners.map(eye.px)),
      true,
    );
}

/** Water that stands in a box up to a height. */
export function paintWater(out: Brush, { low, high }: { low: Xyz; high: Xyz }, toM: number, eye: Eye) {
  if (toM <= low.zM + 1e-6) return;
  out.lines(
    area("var(--stays)", "none", 0, 0.42),
    facesOf({ low, high: { ...high, zM: Math.min(high.zM, toM) } }, eye).map((f) => f.corners.map(eye.px)),
    true,
  );
}

const LEAST_PICTURE_PX = 15;
/** A solid that reaches no further than this from its middle is a speck: its faces would be lines on top of each other. */
export const SPECK_PX = 3;

/** What a solid is, drawn on the upright side of it that is seen best: a pump set reads as one without names. */
export function paintPicture(out: Brush, { low, high }: { low: Xyz; high: Xyz }, stock: string, eye: Eye) {
  const deep = Math.abs(eye.towards.xM) * (high.yM - low.yM) >= Math.abs(eye.towards.yM) * (high.xM - low.xM) ? "xM" : "yM";
  const wide = deep === "xM" ? "yM" : "xM";
  const on = { ...low, [deep]: eye.towards[deep] > 0 ? high[deep] : low[deep] };
  const [a, b] = [eye.px(on), eye.px({ ...on, [wide]: high[wide] })];
  // From left to right as it is seen.
  const [from, to] = a.x <= b.x ? [a, b] : [b, a];
  const up = eye.px({ ...on, zM: high.zM });
  const [right, rise] = [
    { x: to.x - from.x, y: to.y - from.y },
    { x: up.x - a.x, y: up.y - a.y },
  ];
  const size = 0.84 * Math.min(high[wide] - low[wide], high.zM - low.zM);
  const [u, v] = [size / (high[wide] - low[wide]), size / (high.zM - low.zM)];
  if (Math.min(Math.hypot(right.x, right.y) * u, Math.hypot(rise.x, rise.y) * v) < LEAST_PICTURE_PX) return;
  const placed = glyphLines(stock).map((stroke) =>
    stroke.map(({ x, y }) => {
      const [s, t] = [0.5 + (x / 24 - 0.5) * u, 0.5 - (y / 24 - 0.5) * v];
      return { x: from.x + right.x * s + rise.x * t, y: from.y + right.y * s + rise.y * t };
    }),
  );
  if (placed.length > 0) out.lines(line("var(--muted)", 1.2, undefined, "round"), placed);
}
