/** A text that wants a place beside a rectangle. */
export interface Wanted {
  id: string;
  text: string;
  /** Rectangle it belongs to. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Lower comes first. */
  rank: number;
}

export interface Placed {
  id: string;
  text: string;
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
}

interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

const CHAR = 5.9;
const LINE = 15;

const meets = (a: Area, b: Area) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Squares along a line of pixels, for labels to keep off. */
export function alongLine(points: { x: number; y: number }[]): Area[] {
  return points.flatMap((b, i) => {
    const a = points[i - 1];
    if (!a) return [];
    const count = Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 9);
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 0.5) / count;
      return { x: a.x + (b.x - a.x) * t - 3, y: a.y + (b.y - a.y) * t - 3, width: 6, height: 6 };
    });
  });
}

/**
 * Puts labels where they meet neither each other nor `taken`, inside the rectangle where it is large enough, else above, below or beside it.
 * `lines` are kept off where there is another place.
 * One that fits nowhere is left out: a drawing with a few names reads better than one with all of them on top of each other.
 */
export function placeLabels(wanted: Wanted[], taken: Area[], frame: { width: number; height: number }, lines: Area[] = []): Placed[] {
  const used = [...taken];
  const placed: Placed[] = [];
  for (const w of [...wanted].sort((a, b) => a.rank - b.rank)) {
    const width = w.text.length * CHAR + 6;
    const midX = w.x + w.width / 2;
    const midY = w.y + w.height / 2;
    const spots: [Placed["anchor"], number, number][] = [
      ["middle", midX, w.y - 5],
      ["middle", midX, w.y + w.height + 13],
      ["start", w.x + w.width + 5, midY + 4],
      ["end", w.x - 5, midY + 4],
      ["start", w.x + w.width + 4, w.y - 3],
      ["end", w.x - 4, w.y - 3],
      ["end", w.x + w.width - 16, w.y - 6],
      ["middle", midX, w.y - 22],
      ["start", w.x + 10, w.y - 22],
    ];
    if (w.width > width && w.height > LINE + 4) spots.unshift(["middle", midX, midY + 4]);
    const free = spots.flatMap(([anchor, x, y]) => {
      const left = anchor === "start" ? x : anchor === "end" ? x - width : x - width / 2;
      const area = { x: left - 1, y: y - 12, width: width + 2, height: LINE };
      const inside = area.x > 2 && area.x + area.width < frame.width - 2 && area.y > 2 && area.y + area.height < frame.height - 2;
      if (!inside || used.some((u) => meets(u, area))) return [];
      return [{ anchor, x, y, area, crossed: lines.filter((l) => meets(l, area)).length }];
    });
    const best = free.reduce<(typeof free)[number] | undefined>((b, f) => (b && b.crossed <= f.crossed ? b : f), undefined);
    if (!best) continue;
    used.push(best.area);
    placed.push({ id: w.id, text: w.text, x: best.x, y: best.y, anchor: best.anchor });
  }
  return placed;
}
