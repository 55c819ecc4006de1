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
  /** Named from a little away where there is no room beside it. */
  led?: boolean;
}

export interface Placed {
  id: string;
  text: string;
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
  /** From what it names to a name that found no place beside it. */
  leader?: [Px, Px];
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

  /** A leader passes between names and what is taken. */
  isClear = ([a, b]: [Px, Px]) =>
    [0.3, 0.6, 1].every((k) => this.isFree({ x: a.x + (b.x - a.x) * k - 1, y: a.y + (b.y - a.y) * k - 1, width: 2, height: 2 }));

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

/** Ways out from a rectangle to a name that finds no place beside it, px, the nearest first. */
const AWAY = [34, 52, 74].flatMap((r) => [-90, 90, -45, -135, 45, 135, 0, 180].map((deg) => ({ r, angle: (deg * Math.PI) / 180 })));

/**
 * Puts labels where they meet neither each other nor `taken` nor one of `lines`: inside the rectangle where it is large enough, else
 * above, below or beside it, else a little away with a leader. One that fits nowhere is left out, but for one in hand (a rank below
 * zero), which may lie on a line: a drawing with a few names reads better than one with all of them on top of each other.
 */
export function placeLabels(wanted: Wanted[], taken: Area[], frame: { width: number; height: number }, lines: Px[][] = []): Placed[] {
  const ground = new Ground(frame);
  for (const line of lines) ground.line(line);
  for (const area of taken) ground.take(area);
  const placed: Placed[] = [];
  for (const w of [...wanted].sort((a, b) => a.rank - b.rank)) {
    const best = spotOf(w, ground, frame);
    if (!best) continue;
    ground.take(best.area);
    if (best.leader) ground.line(best.leader);
    const { area, crossed, ...spot } = best;
    placed.push({ id: w.id, text: w.text, ...spot });
  }
  return placed;
}

type Spot = Omit<Placed, "id" | "text"> & { area: Area; crossed: number };

function spotOf(w: Wanted, ground: Ground, frame: { width: number; height: number }): Spot | undefined {
  const width = widthOf(w.text);
  const midX = w.x + w.width / 2;
  const midY = w.y + w.height / 2;
  const beside: [Placed["anchor"], number, number][] = [
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
  if (w.width > width && w.height > LINE + 4) beside.unshift(["middle", midX, midY + 4]);
  const spot = (anchor: Placed["anchor"], x: number, y: number, leader?: [Px, Px]): Spot | undefined => {
    const left = anchor === "start" ? x : anchor === "end" ? x - width : x - width / 2;
    const area = { x: left - 1, y: y - 12, width: width + 2, height: LINE };
    const inside = area.x > 2 && area.x + area.width < frame.width - 2 && area.y > 2 && area.y + area.height < frame.height - 2;
    return inside && ground.isFree(area) && (!leader || ground.isClear(leader))
      ? { anchor, x, y, area, crossed: ground.crossed(area), ...(leader && { leader }) }
      : undefined;
  };
  let best: Spot | undefined;
  for (const [anchor, x, y] of beside) {
    const s = spot(anchor, x, y);
    if (s?.crossed === 0) return s;
    if (s && (!best || s.crossed < best.crossed)) best = s;
  }
  if (w.led)
    for (const { r, angle } of AWAY) {
      const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
      const from = { x: midX + (dx * w.width) / 2, y: midY + (dy * w.height) / 2 };
      const to = { x: from.x + dx * r, y: from.y + dy * r };
      const anchor = dx > 0.1 ? "start" : dx < -0.1 ? "end" : "middle";
      const s = spot(anchor, to.x + Math.sign(Math.round(dx)) * 3, to.y + 4 + dy * 7, [from, to]);
      if (s?.crossed === 0) return s;
    }
  return w.rank < 0 ? best : undefined;
}
