import { glyphOf } from "./PartGlyph";
import type { Px } from "./projection";

const STEP = 0.8;
const known = new Map<string, Px[][]>();

/** The picture of a stock part as lines of points, 24 units square; none where there is no picture, or no browser to measure it. */
export function glyphLines(stock: string): Px[][] {
  const drawn = known.get(stock);
  if (drawn) return drawn;
  const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
  // Every stroke of a picture begins at a place of its own.
  const lines = (glyphOf(stock) ?? "").split(/(?=M)/).map((stroke) => {
    path.setAttribute("d", stroke);
    const length = stroke && path.getTotalLength ? path.getTotalLength() : 0;
    const count = Math.ceil(length / STEP);
    return Array.from({ length: length > 0 ? count + 1 : 0 }, (_, i) => {
      const { x, y } = path.getPointAtLength((length * i) / count);
      return { x, y };
    });
  });
  const made = lines.filter((l) => l.length > 1);
  known.set(stock, made);
  return made;
}
