import { useGesture } from "@use-gesture/react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useSettings } from "../../app/settings";
import { type Print, usePrint } from "../../app/units";
import { alongLine, placeLabels } from "../../drawing/labels";
import { type Px, pathOf } from "../../drawing/projection";
import { Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { raised, runOf, useBench } from "./benchStore";
import { HeightField } from "./HeightField";
import { RunPicker } from "./RunPicker";
import { poolLine, type Strip, type StripLength, type StripPoint, sameHandle, unroll } from "./stripGeometry";

const margin = { left: 58, right: 40, top: 26, bottom: 26 };

/** The chosen run and its way to the drain, unrolled along its length with heights exaggerated. Heights are dragged here, or nudged with keys. */
export function FallStrip() {
  const { rig, answers, selection } = useBench();
  const print = usePrint();
  const { stock, numbers } = useCatalogue();
  const drainDown = answers?.drainDown;
  const runId = selection.runId ?? rig?.runs[0]?.id ?? null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the answer comes from the rig, and names come with it
  const strip = useMemo(() => (rig && drainDown && runId ? unroll(rig, stock, drainDown, runId) : null), [drainDown, stock, runId]);
  const drain = drainDown?.runs.find((r) => r.runId === runId);
  const chosen = strip?.points.find((p) => p.runId === runId && p.pointId === selection.pointId);
  const run = rig ? runOf(rig, runId) : undefined;

  return (
    <Panel aria-label="Fall strip" className="flex flex-col">
      <header className="flex h-12 items-center gap-3 pr-2 pl-3">
        <h2 className="shrink-0 font-semibold">Fall strip</h2>
        {rig && run && <RunPicker runs={rig.runs} runId={run.id} />}
        <p className="min-w-0 truncate text-muted">{drain && run && summary(drain, numbers.dryRunL, print)}</p>
        <span className="grow" />
        <HeightField point={chosen ?? null} />
      </header>
      {strip && rig ? (
        <StripSvg
          strip={strip}
          pool={poolLine(strip, drainDown?.pools ?? [], runId ?? "")}
          rig={rig}
          chosen={chosen ?? null}
          print={print}
        />
      ) : (
        <p className="p-4 text-muted">Choose a run in a drawing.</p>
      )}
    </Panel>
  );
}

function summary(drain: Schema["RunDrain"], dryRunL: number, print: Print) {
  const end = drain.routeEnd ? `to ${drain.routeEnd.words}` : "no way out";
  const held = drain.retainedL > dryRunL ? `holds ${print(drain.retainedL, "volume")}` : "runs dry";
  return `${end} · ${print(drain.lengthM, "length")} long · ${held}`;
}

interface StripProps {
  strip: Strip;
  pool: ReturnType<typeof poolLine>;
  rig: Schema["Rig"];
  chosen: StripPoint | null;
  print: Print;
}

function StripSvg({ strip, pool, rig, chosen, print }: StripProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const { select, show, commit, cancelPreview } = useBench();
  // The document as it was when a drag began: what is dragged is raised from there.
  const start = useRef(rig);
  // While a point is dragged the window keeps its heights, or the point would run from the finger.
  const [hold, setHold] = useState<{ lowM: number; highM: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const low = hold?.lowM ?? strip.lowM;
  const high = hold?.highM ?? strip.highM;
  const system = useSettings((s) => s.system);
  const w = Math.max(size.width - margin.left - margin.right, 10);
  const h = Math.max(size.height - margin.top - margin.bottom, 10);
  const span = Math.max(high - low, 0.12) + 0.03;
  const kx = w / Math.max(strip.lengthM, 0.05);
  const ky = h / span;
  const x = (m: number) => margin.left + m * kx;
  const y = (m: number) => margin.top + h - (m - low + 0.008) * ky;
  const thick = (boreM: number) => Math.max(boreM * ky, 7) / ky;

  const nudge = (point: StripPoint, byM: number) => {
    if (!point.handle) return;
    const handle = point.handle;
    commit(`Height of ${point.name ?? "a bend"} ${byM > 0 ? "+" : "−"}${Math.abs(byM * 1000)} mm`, [raised(rig, handle, byM)]);
  };
  const keys = (event: KeyboardEvent, point: StripPoint) => {
    const step = event.shiftKey ? 0.001 : event.key.startsWith("Page") ? 0.025 : 0.005;
    const sign = { ArrowUp: 1, PageUp: 1, ArrowDown: -1, PageDown: -1 }[event.key];
    if (event.key === "Escape") cancelPreview();
    if (!sign) return;
    event.preventDefault();
    nudge(point, sign * step);
  };
  useGesture(
    {
      onDrag: ({ event, first, last, movement: [, dy], memo, tap }) => {
        const point = memo ?? pointOfEvent(event, strip);
        if (!point) return null;
        if (first) {
          start.current = rig;
          select({ runId: selectedRun(), pointId: point.runId === selectedRun() ? point.pointId : null });
          if (point.handle) setHold({ lowM: low, highM: high });
        }
        if (point.handle && !tap && dy !== 0) {
          const by = Math.round((-dy / ky) * 1000) / 1000;
          const edits = [raised(start.current, point.handle, by)];
          if (last) commit(`Height of ${point.name ?? "a bend"} by drag`, edits);
          else show(edits);
        }
        if (last) setHold(null);
        return point;
      },
    },
    {
      target: svg,
      drag: { filterTaps: true, pointer: { keys: false }, threshold: 2, preventDefault: true },
      eventOptions: { passive: false },
    },
  );
  const selectedRun = () => useBench.getState().selection.runId ?? strip.points.find((p) => p.own)?.runId ?? null;

  const grid = gridLines(low, high, span, system);
  const handles = strip.points.filter(
    (p, i) => i === 0 || !sameHandle(p.handle ?? null, strip.points[i - 1]?.handle ?? null) || p.handle === null,
  );
  const wedges = strip.lengths.map((l) => wedgeOf(l, rig.brief.leastFall, x, y)).filter((w) => w !== null);
  const poolText = pool && `stands to ${print(pool.levelM, "length")}, the crest${pool.crest ? ` at ${pool.crest}` : ""}`;
  const names = placeLabels(
    [
      ...(pool && poolText
        ? [
            {
              id: "pool",
              text: poolText,
              x: x(pool.fromM),
              y: y(pool.levelM),
              width: x(pool.toM) - x(pool.fromM),
              height: 1,
              rank: -1,
            },
          ]
        : []),
      ...handles.flatMap((p, i) =>
        p.name
          ? [
              {
                id: `${p.runId}:${p.pointId}`,
                text: p.name,
                x: x(p.alongM) - 9,
                y: y(p.heightM) - 8,
                width: 18,
                height: 18,
                rank: p.own ? 0 : i,
              },
            ]
          : [],
      ),
      ...wedges.flatMap(([foot, flat, top]) =>
        foot.x - top.x > 90
          ? [
              {
                id: `wedge:${top.x}`,
                text: "least fall",
                x: flat.x + 20,
                y: top.y,
                width: 50,
                height: 4,
                rank: 99,
              },
            ]
          : [],
      ),
    ],
    [
      ...handles.map((p) => ({ x: x(p.alongM) - 7, y: y(p.heightM) - 7, width: 14, height: 14 })),
      { x: 0, y: 0, width: margin.left - 14, height: size.height },
    ],
    { width: size.width, height: size.height - margin.bottom },
    alongLine(strip.points.map((p) => ({ x: x(p.alongM), y: y(p.heightM) }))),
  );

  return (
    <div ref={box} className="min-h-0 grow">
      {size.width > 0 && (
        <svg ref={svg} width={size.width} height={size.height} className="block touch-none select-none" data-strip>
          <title>Heights along the way to the drain</title>
          {grid.map((g) => (
            <g key={g}>
              <line x1={margin.left} x2={size.width - 10} y1={y(g)} y2={y(g)} stroke="var(--rule)" />
              <text x={margin.left - 8} y={y(g) + 4} textAnchor="end" style={{ fill: "var(--muted)" }}>
                {print(g, "length")}
              </text>
            </g>
          ))}
          {wedges.map((w) => (
            <Wedge key={`${w[0].x}:${w[0].y}`} points={w} />
          ))}
          {strip.lengths.map((l) => (
            <Bore key={key(l)} length={l} x={x} y={y} thickM={thick(l.boreM)} />
          ))}
          {pool && (
            <path
              d={pathOf([
                { x: x(pool.fromM), y: y(pool.levelM) },
                { x: x(pool.toM), y: y(pool.levelM) },
              ])}
              stroke="var(--stays)"
              strokeWidth={1.5}
              strokeDasharray="6 4"
            />
          )}
          <Falls lengths={strip.lengths} leastFall={rig.brief.leastFall} x={x} yText={size.height - 8} print={print} />
          {names.map((n) => (
            <text
              key={n.id}
              x={n.x}
              y={n.y}
              textAnchor={n.anchor}
              className="pointer-events-none"
              style={{
                paintOrder: "stroke",
                ...(n.id === "pool" ? { fill: "var(--stays)", fontWeight: 600 } : {}),
              }}
              stroke="var(--panel)"
              strokeWidth={3}
            >
              {n.text}
            </text>
          ))}
          {handles.map((p) => {
            const held = chosen !== null && p.runId === chosen.runId && p.pointId === chosen.pointId;
            const at = { x: x(p.alongM), y: y(p.heightM) };
            const label = `${p.name ?? `bend ${p.number}`}, ${print(p.builtM, "length")} above the floor`;
            return (
              <g
                key={`${p.runId}:${p.pointId}`}
                data-point={`${p.runId}:${p.pointId}`}
                role="slider"
                tabIndex={0}
                aria-label={label}
                aria-orientation="vertical"
                aria-valuenow={Math.round(p.builtM * 1000)}
                aria-valuemin={-1000}
                aria-valuemax={3000}
                aria-valuetext={print(p.builtM, "length")}
                aria-disabled={p.handle === null}
                onKeyDown={(e) => keys(e, p)}
                onFocus={() => select({ runId: selectedRun(), pointId: p.runId === selectedRun() ? p.pointId : null })}
                className={`group ${p.handle ? "cursor-ns-resize" : "cursor-not-allowed"}`}
              >
                <title>{p.fixed ?? label}</title>
                <circle cx={at.x} cy={at.y} r={20} fill="transparent" />
                <circle
                  cx={at.x}
                  cy={at.y}
                  r={13}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={2}
                  className="hidden group-focus-visible:block"
                />
                {p.handle ? (
                  <circle
                    cx={at.x}
                    cy={at.y}
                    r={held ? 8 : p.own ? 6.5 : 4.5}
                    fill={held ? "var(--ink)" : "var(--panel)"}
                    stroke="var(--ink)"
                    strokeWidth={p.own ? 2 : 1.25}
                  />
                ) : (
                  <rect x={at.x - 5} y={at.y - 5} width={10} height={10} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />
                )}
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}

const key = (l: StripLength) => `${l.from.runId}:${l.from.pointId}`;

function pointOfEvent(event: Event, strip: Strip): StripPoint | null {
  const id = (event.target as Element).closest("[data-point]")?.getAttribute("data-point");
  return strip.points.find((p) => `${p.runId}:${p.pointId}` === id) ?? null;
}

/** The bore as two edges, filled where water stays. */
function Bore({ length: l, x, y, thickM }: { length: StripLength; x(m: number): number; y(m: number): number; thickM: number }) {
  const at = (t: number) => ({
    alongM: l.from.alongM + (l.to.alongM - l.from.alongM) * t,
    heightM: l.from.heightM + (l.to.heightM - l.from.heightM) * t,
  });
  const corner = (t: number, up: number) => {
    const p = at(t);
    return { x: x(p.alongM), y: y(p.heightM + up) };
  };
  const outline = `${pathOf([corner(0, 0), corner(1, 0), corner(1, thickM), corner(0, thickM)])}Z`;
  let water: string | null = null;
  if (l.wetTo > l.wetFrom) {
    // Along the level where the bore is part full, along the crown where it is full.
    const steps = 24;
    const top = [];
    for (let i = steps; i >= 0; i--) {
      const t = l.wetFrom + ((l.wetTo - l.wetFrom) * i) / steps;
      const p = at(t);
      const surface = l.levelM == null ? p.heightM + thickM : Math.min(l.levelM, p.heightM + thickM);
      top.push({ x: x(p.alongM), y: y(Math.max(surface, p.heightM)) });
    }
    water = `${pathOf([corner(l.wetFrom, 0), corner(l.wetTo, 0), ...top])}Z`;
  }
  return (
    <g opacity={l.own ? 1 : 0.55}>
      <path d={outline} fill="var(--sunk)" />
      {water && <path d={water} fill="var(--stays)" data-wet={l.from.runId} />}
      <path d={pathOf([corner(0, 0), corner(1, 0)])} stroke="var(--ink)" strokeWidth={l.own ? 1.6 : 1.1} />
      <path d={pathOf([corner(0, thickM), corner(1, thickM)])} stroke="var(--ink)" strokeWidth={l.own ? 1.2 : 0.8} />
    </g>
  );
}

/** The least fall, as a wedge standing on the lower end of each length: a pipe inside it is too flat. */
function Wedge({ points }: { points: [Px, Px, Px] }) {
  return <path d={`${pathOf(points)}Z`} fill="var(--strong)" opacity={0.4} />;
}

function wedgeOf(l: StripLength, leastFall: number, x: (m: number) => number, y: (m: number) => number): [Px, Px, Px] | null {
  if (!l.own || leastFall <= 0 || l.fall == null || l.fall > 2 * leastFall) return null;
  const foot = l.to.heightM;
  const rise = leastFall * (l.to.alongM - l.from.alongM);
  return [
    { x: x(l.to.alongM), y: y(foot) },
    { x: x(l.from.alongM), y: y(foot) },
    { x: x(l.from.alongM), y: y(foot + rise) },
  ];
}

function Falls(props: { lengths: StripLength[]; leastFall: number; x(m: number): number; yText: number; print: Print }) {
  return props.lengths.map((l) => {
    const width = props.x(l.to.alongM) - props.x(l.from.alongM);
    if (l.fall == null || width < 46) return null;
    const climbs = l.fall < 0;
    const flat = l.fall < props.leastFall;
    const text = `${props.print(Math.abs(l.fall), "fall")}${climbs && width > 92 ? " wrong way" : climbs ? " ↑" : ""}`;
    return (
      <text
        key={key(l)}
        x={(props.x(l.from.alongM) + props.x(l.to.alongM)) / 2}
        y={props.yText}
        textAnchor="middle"
        style={{ fontWeight: flat ? 700 : 450, fill: flat ? "var(--ink)" : "var(--muted)", fontSize: 13 }}
      >
        {text}
      </text>
    );
  });
}

function gridLines(low: number, high: number, span: number, system: Schema["UnitSystem"]) {
  const inch = 0.0254;
  const steps = system === "metric" ? [0.02, 0.05, 0.1, 0.2, 0.5] : [1, 2, 4, 6, 12, 24].map((i) => i * inch);
  const step = steps.find((s) => span / s <= 7) ?? 1;
  const first = Math.ceil((low - 0.008) / step);
  const count = Math.floor((high + 0.02) / step) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * step);
}
