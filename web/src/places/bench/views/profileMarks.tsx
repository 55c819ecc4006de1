import type { Schema } from "../../../api/client";
import type { Print } from "../../../app/units";
import { type Px, pathOf } from "../../../drawing/projection";
import type { Strip, StripLength, StripPoint } from "../profileGeometry";

/** A fix in the strip: the course it would give, and the heights between which its point may lie. */
export function StripGhost(props: {
  points: Px[];
  band: Schema["Band"] | null;
  at: StripPoint | undefined;
  x(p: StripPoint): number;
  y(m: number): number;
  print: Print;
}) {
  const { points, band, at, x, y, print } = props;
  const tilt = at ? at.heightM - at.builtM : 0;
  const low = band?.lowestM ?? null;
  const high = band?.highestM ?? null;
  const words =
    low !== null && high !== null
      ? `${print(low, "length")} to ${print(high, "length")}`
      : low !== null
        ? `${print(low, "length")} or higher`
        : high !== null
          ? `${print(high, "length")} or lower`
          : null;
  return (
    <g className="pointer-events-none" data-fix-ghost>
      <path d={pathOf(points)} fill="none" stroke="var(--ink)" strokeWidth={2} strokeDasharray="7 4" strokeLinejoin="round" />
      {at && words && (
        <g data-band>
          <line
            x1={x(at)}
            x2={x(at)}
            y1={y((low ?? at.builtM - 1) + tilt)}
            y2={y((high ?? at.builtM + 1) + tilt)}
            stroke="var(--safe)"
            strokeWidth={9}
            opacity={0.55}
          />
          <text
            x={x(at) + 14}
            y={Math.max(24, y((low ?? at.builtM) + tilt) - 6)}
            fontWeight={650}
            style={{ paintOrder: "stroke" }}
            stroke="var(--panel)"
            strokeWidth={4}
          >
            {words}
          </text>
        </g>
      )}
    </g>
  );
}

/** In words: its own name, or its number. */
export const nameFor = (p: StripPoint) => p.name ?? `bend ${p.number}`;

/** A point of the strip: its height is dragged, or nudged by keys. */
export function Handle(props: {
  point: StripPoint;
  at: Px;
  held: boolean;
  print: Print;
  onFocus(): void;
  onKey(e: React.KeyboardEvent): void;
}) {
  const { point: p, at, held, print } = props;
  const label = `${nameFor(p)}, ${print(p.builtM, "length")} above the floor`;
  return (
    <g
      data-point={`${p.runId}:${p.pointId}`}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-orientation="vertical"
      aria-valuenow={Math.round(p.builtM * 1000)}
      aria-valuemin={-1000}
      aria-valuemax={3000}
      aria-valuetext={print(p.builtM, "length")}
      aria-disabled={p.mover === null}
      onKeyDown={props.onKey}
      onFocus={props.onFocus}
      className={`group ${p.mover ? "cursor-ns-resize" : "cursor-not-allowed"}`}
    >
      <title>{p.fixed ?? label}</title>
      <circle cx={at.x} cy={at.y} r={20} fill="transparent" />
      <circle cx={at.x} cy={at.y} r={13} fill="none" stroke="var(--ink)" strokeWidth={2} className="hidden group-focus-visible:block" />
      {p.mover ? (
        <circle
          cx={at.x}
          cy={at.y}
          r={held ? 8 : p.own ? 6.5 : 4.5}
          fill={held ? "var(--ink)" : "var(--panel)"}
          stroke="var(--ink)"
          strokeWidth={p.own ? 2 : 1.25}
        />
      ) : (
        <rect
          x={at.x - 5}
          y={at.y - 5}
          width={10}
          height={10}
          fill={held ? "var(--ink)" : "var(--panel)"}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
    </g>
  );
}

/** What tells a length from the others of its strip. */
export const key = (l: StripLength) => `${l.from.runId}:${l.from.pointId}`;

/** The point of the strip that an event is about. */
export function pointOfEvent(event: Event, strip: Strip): StripPoint | null {
  const id = (event.target as Element).closest("[data-point]")?.getAttribute("data-point");
  return strip.points.find((p) => `${p.runId}:${p.pointId}` === id) ?? null;
}

/** The bore as two edges, filled where water stays or, in use, where it is. */
export function Bore(props: {
  length: StripLength;
  at(p: StripPoint): Px;
  x(m: number): number;
  y(m: number): number;
  alongOf(p: StripPoint): number;
  thickM: number;
}) {
  const { length: l, x, y, alongOf, thickM } = props;
  const [a, b] = [alongOf(l.from), alongOf(l.to)];
  const place = (t: number) => ({ alongM: a + (b - a) * t, heightM: l.from.heightM + (l.to.heightM - l.from.heightM) * t });
  const corner = (t: number, up: number) => {
    const p = place(t);
    return { x: x(p.alongM), y: y(p.heightM + up) };
  };
  const outlineOf = (from: number, to: number) => `${pathOf([corner(from, 0), corner(to, 0), corner(to, thickM), corner(from, thickM)])}Z`;
  let water: string | null = null;
  if (l.wetTo > l.wetFrom) {
    // Along the level where the bore is part full, along the crown where it is full.
    const steps = 24;
    const top = [];
    for (let i = steps; i >= 0; i--) {
      const p = place(l.wetFrom + ((l.wetTo - l.wetFrom) * i) / steps);
      const surface = l.levelM == null ? p.heightM + thickM : Math.min(l.levelM, p.heightM + thickM);
      top.push({ x: x(p.alongM), y: y(Math.max(surface, p.heightM)) });
    }
    water = `${pathOf([corner(l.wetFrom, 0), corner(l.wetTo, 0), ...top])}Z`;
  }
  return (
    <g opacity={l.own ? 1 : 0.55}>
      <path d={outlineOf(0, 1)} fill="var(--sunk)" />
      {l.hangsTo > l.hangsFrom && (
        <path d={outlineOf(l.hangsFrom, l.hangsTo)} fill="var(--stays)" fillOpacity={0.45} data-hangs={l.from.runId} />
      )}
      {water && <path d={water} fill={l.full ? "var(--full)" : "var(--stays)"} data-wet={l.from.runId} />}
      <path d={pathOf([corner(0, 0), corner(1, 0)])} stroke="var(--ink)" strokeWidth={l.own ? 1.6 : 1.1} />
      <path d={pathOf([corner(0, thickM), corner(1, thickM)])} stroke="var(--ink)" strokeWidth={l.own ? 1.2 : 0.8} />
    </g>
  );
}

/** The least fall, as a wedge standing on the lower end of a length: a pipe inside it is too flat. */
export function wedgeOf(
  l: StripLength,
  leastFall: number,
  at: (p: StripPoint) => Px,
  x: (m: number) => number,
  y: (m: number) => number,
  alongOf: (p: StripPoint) => number,
) {
  const along = (l.fall ?? 1) * (l.direction || 1);
  if (!l.own || leastFall <= 0 || l.fall === null || along > 2 * leastFall) return null;
  const [high, low] = l.direction < 0 ? [l.to, l.from] : [l.from, l.to];
  const rise = leastFall * Math.abs(alongOf(high) - alongOf(low));
  return [[at(low), { x: x(alongOf(high)), y: y(low.heightM) }, { x: x(alongOf(high)), y: y(low.heightM + rise) }] as [Px, Px, Px]];
}

/** Falls under the lengths, signed by the strip's own direction: − climbs on the way to the drain. Steep ones need no second unit. */
export function Falls(props: { lengths: StripLength[]; leastFall: number; at(p: StripPoint): Px; yText: number; print: Print }) {
  return props.lengths.map((l) => {
    const [a, b] = [props.at(l.from).x, props.at(l.to).x];
    const width = b - a;
    if (width < 40) return null;
    const plumb = l.fall === null;
    const weak = !plumb && (l.fall as number) < props.leastFall;
    const style = { fontWeight: weak ? 700 : 450, fill: weak ? "var(--ink)" : "var(--muted)" };
    return (
      <g key={key(l)}>
        <text x={(a + b) / 2} y={props.yText} textAnchor="middle" style={style}>
          {plumb ? "plumb" : props.print(l.fall, "fall")}
        </text>
        {!plumb && width > 64 && (
          <text x={(a + b) / 2} y={props.yText + 15} textAnchor="middle" style={{ fill: "var(--muted)" }}>
            {props.print(l.fall, "slope")}
          </text>
        )}
      </g>
    );
  });
}

/** Heights of lines across the strip, m, at steps that are read easily in either system. */
export function gridLines(low: number, high: number, span: number, system: Schema["UnitSystem"]) {
  const inch = 0.0254;
  const steps = system === "metric" ? [0.02, 0.05, 0.1, 0.2, 0.5] : [1, 2, 4, 6, 12, 24].map((i) => i * inch);
  const step = steps.find((s) => span / s <= 7) ?? 1;
  const first = Math.ceil((low - 0.008) / step);
  const count = Math.floor((high + 0.02) / step) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * step);
}
