import { type Px, pathOf } from "./projection";

/** How something is painted. */
export interface Style {
  fill: string;
  stroke: string;
  width: number;
  dash?: string;
  opacity?: number;
  cap?: "round" | "butt";
}

/** What a picture is painted with, from back to front: paths of a drawing, or a canvas while it is in motion. */
export interface Brush {
  lines(style: Style, lines: Px[][], closed?: boolean): void;
  ring(style: Style, at: Px, r: number): void;
}

/** A path with its style; `key` names the style, `name` the thing that it is a mark of. */
export interface Path {
  key: string;
  style: Style;
  d: string;
  name?: string | undefined;
}

/** Paints paths of a drawing: what has the same style in a row is one path. */
export class PathBrush implements Brush {
  readonly paths: Path[] = [];

  /** What is painted is a mark of `name`: it is named where a pointer rests on it. */
  constructor(private readonly name?: string) {}

  lines(style: Style, lines: Px[][], closed = false) {
    this.add(keyOf(style), style, lines.map((l) => (closed ? `${pathOf(l)}Z` : pathOf(l))).join(""));
  }

  ring(style: Style, { x, y }: Px, r: number) {
    this.add(keyOf(style), style, `M${(x - r).toFixed(1)} ${y.toFixed(1)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0${-2 * r} 0Z`);
  }

  again(paths: Path[]) {
    for (const { key, style, d, name } of paths) this.add(key, style, d, name);
  }

  private add(key: string, style: Style, d: string, name = this.name) {
    const last = this.paths[this.paths.length - 1];
    if (last?.key === key && last.name === name && style.opacity === undefined) last.d += d;
    else this.paths.push({ key, style, d, name });
  }
}

/**
 * Paints pale: what does not belong to what is selected is its outline in one quiet colour, and water in it a lighter one. No
 * opacity: hundreds of see-through layers would be painted one by one.
 */
export class PaleBrush implements Brush {
  constructor(private readonly on: Brush) {}

  lines(style: Style, lines: Px[][], closed?: boolean) {
    const pale = paleOf(style);
    if (pale) this.on.lines(pale, lines, closed);
  }

  ring(style: Style, at: Px, r: number) {
    const pale = paleOf(style);
    if (pale) this.on.ring(pale, at, r);
  }
}

function paleOf({ fill, stroke, width, dash, cap }: Style): Style | null {
  const lined = stroke !== "none" && stroke !== "var(--panel)" && width > 0;
  if (!lined && fill !== "var(--ink)") return null;
  const water = stroke === "var(--stays)" || stroke === "url(#ice-hatch)";
  return {
    fill: lined ? "none" : "var(--pale)",
    stroke: lined ? (water ? "var(--full)" : "var(--pale)") : "none",
    width,
    ...(dash && { dash }),
    ...(cap && { cap }),
  };
}

const keyOf = (s: Style) => `${s.fill}|${s.stroke}|${s.width}|${s.dash}|${s.opacity}|${s.cap}`;

/**
 * Paints on a canvas. Hatches are plain tints there: it is seen only while it moves. Lines of one style in a row are one stroke;
 * `end` paints the last of them.
 */
export class CanvasBrush implements Brush {
  private readonly colours = new Map<string, string>();
  private open: Style | null = null;
  private dashed = false;

  constructor(
    private readonly on: CanvasRenderingContext2D,
    private readonly colourNamed: (name: string) => string,
  ) {
    on.setLineDash([]);
  }

  lines(style: Style, lines: Px[][], closed = false) {
    this.begin(style);
    for (const points of lines) {
      points.forEach(({ x, y }, i) => {
        if (i === 0) this.on.moveTo(x, y);
        else this.on.lineTo(x, y);
      });
      if (closed) this.on.closePath();
    }
  }

  ring(style: Style, { x, y }: Px, r: number) {
    this.begin(style);
    this.on.moveTo(x + r, y);
    this.on.arc(x, y, r, 0, 2 * Math.PI);
  }

  end() {
    if (this.open) this.paint(this.open);
    this.open = null;
  }

  private begin(style: Style) {
    const { open } = this;
    // Areas lie over each other one by one; lines of one colour do not show which is in front.
    if (open && style.fill === "none" && style.opacity === undefined && keyOf(open) === keyOf(style)) return;
    this.end();
    this.on.beginPath();
    this.open = style;
  }

  private paint({ fill, stroke, width, dash, opacity, cap }: Style) {
    const { on } = this;
    on.globalAlpha = (opacity ?? 1) * (fill === "url(#solid-hatch)" ? 0.3 : 1);
    if (fill !== "none") {
      on.fillStyle = this.colourOf(fill);
      on.fill();
    }
    if (stroke === "none" || width === 0) return;
    on.strokeStyle = this.colourOf(stroke);
    on.lineWidth = width;
    on.lineCap = cap ?? "butt";
    if (dash || this.dashed) on.setLineDash(dash ? dash.split(" ").map(Number) : []);
    this.dashed = dash !== undefined;
    on.stroke();
  }

  private colourOf(paint: string): string {
    const known = this.colours.get(paint);
    if (known) return known;
    const name = paint === "url(#ice-hatch)" ? "--ice" : paint === "url(#solid-hatch)" ? "--strong" : paint.slice(4, -1);
    const colour = this.colourNamed(name);
    this.colours.set(paint, colour);
    return colour;
  }
}

const NS = "http://www.w3.org/2000/svg";
type Shown = SVGPathElement & { styleKey?: string; shownD?: string; shownName?: string | undefined };

/** Puts paths into a group, using again what is there: a nudge changes a few paths of a thousand. */
export function showPaths(group: SVGGElement, paths: Path[]) {
  let element = group.firstElementChild as Shown | null;
  for (const { key, style, d, name } of paths) {
    if (!element) {
      element = document.createElementNS(NS, "path");
      group.append(element);
    }
    if (element.shownD !== d) {
      element.shownD = d;
      element.setAttribute("d", d);
    }
    if (element.styleKey !== key) {
      element.styleKey = key;
      element.setAttribute("fill", style.fill);
      element.setAttribute("stroke", style.stroke);
      element.setAttribute("stroke-width", String(style.width));
      element.setAttribute("stroke-dasharray", style.dash ?? "none");
      element.setAttribute("stroke-linecap", style.cap ?? "butt");
      element.setAttribute("stroke-linejoin", "round");
      element.setAttribute("opacity", String(style.opacity ?? 1));
    }
    if (element.shownName !== name) {
      element.shownName = name;
      if (name === undefined) element.removeAttribute("data-name");
      else element.setAttribute("data-name", name);
    }
    element = element.nextElementSibling as Shown | null;
  }
  while (element) {
    const next = element.nextElementSibling as Shown | null;
    element.remove();
    element = next;
  }
}
