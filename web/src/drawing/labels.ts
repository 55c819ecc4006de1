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

export interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

type Px = { x: number; y: number };

const CHAR = 5.9;

/** About how wide a text of a drawing is. */
export const widthOf = (text: string) => text.length * CHAR + 6;

/** Whether two areas lie on each other. */
export const overlap = (a: Area, b: Area) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const LINE = 15;
const CELL = 4;

/** Which small squares of a drawing are taken, by something or by a line. */
class Ground {
  private readonly columns: number;
  private readonly rows: number;
  private readonly cells: Uint8Array;

  constructor({ width, height }: { width: number; height: number }) {
    this.columns = Math.max(1, Math.ceil(width / CELL));
    this.rows = Math.max(1, Math.ceil(height / CELL));
    this.cells = new Uint8Array(this.columns * this.rows);
  }

  take(area: Area) {
    this.walk(area, (i) => {
      this.cells[i] = 2;
      return false;
    });
  }

  line(points: Px[]) {
    points.forEach((b, i) => {
      const a = points[i - 1];
      if (!a) return;
      const count = Math.min(2000, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / CELL));
      for (let k = 0; k <= count; k++) {
        const column = Math.floor((a.x + ((b.x - a.x) * k) / count) / CELL);
        const row = Math.floor((a.y + ((b.y - a.y) * k) / count) / CELL);
        if (column < 0 || row < 0 || column >= this.columns || row >= this.rows) continue;
        const cell = row * this.columns + column;
        this.cells[cell] = Math.max(this.cells[cell] ?? 0, 1);
      }
    });
  }

  isFree = (area: Area) => !this.walk(area, (i) => this.cells[i] === 2);

  crossed(area: Area) {
    let count = 0;
    this.walk(area, (i) => {
      count += this.cells[i] === 1 ? 1 : 0;
      return false;
    });
    return count;
  }

  private walk(area: Area, found: (cell: number) => boolean): boolean {
    const left = Math.max(0, Math.floor(area.x / CELL));
    const right = Math.min(this.columns - 1, Math.floor((area.x + area.width) / CELL));
    const bottom = Math.min(this.rows - 1, Math.floor((area.y + area.height) / CELL));
    for (let row = Math.max(0, Math.floor(area.y / CELL)); row <= bottom; row++)
      for (let column = left; column <= right; column++) if (found(row * this.columns + column)) return true;
    return false;
  }
}

/**
 * Puts labels where they meet neither each other nor `taken`, inside the rectangle where it is large enough, else above, below or beside it.
 * `lines` are kept off where there is another place.
 * One that fits nowhere is left out: a drawing with a few names reads better than one with all of them on top of each other.
 */
export function placeLabels(wanted: Wanted[], taken: Area[], frame: { width: number; height: number }, lines: Px[][] = []): Placed[] {
  const ground = new Ground(frame);
  for (const line of lines) ground.line(line);
  for (const area of taken) ground.take(area);
  const placed: Placed[] = [];
  for (const w of [...wanted].sort((a, b) => a.rank - b.rank)) {
    const width = widthOf(w.text);
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
    let best: { anchor: Placed["anchor"]; x: number; y: number; area: Area; crossed: number } | undefined;
    for (const [anchor, x, y] of spots) {
      const left = anchor === "start" ? x : anchor === "end" ? x - width : x - width / 2;
      const area = { x: left - 1, y: y - 12, width: width + 2, height: LINE };
      const inside = area.x > 2 && area.x + area.width < frame.width - 2 && area.y > 2 && area.y + area.height < frame.height - 2;
      if (!inside || !ground.isFree(area)) continue;
      const crossed = ground.crossed(area);
      if (!best || crossed < best.crossed) best = { anchor, x, y, area, crossed };
      if (best.crossed === 0) break;
    }
    if (!best) continue;
    ground.take(best.area);
    placed.push({ id: w.id, text: w.text, x: best.x, y: best.y, anchor: best.anchor });
  }
  return placed;
}
