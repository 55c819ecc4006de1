import { useGesture } from "@use-gesture/react";
import { useMemo, useRef, useState } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { useSettings } from "../../../app/settings";
import { type Print, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { movedBy } from "../../../document/things";
import { placeLabels } from "../../../drawing/labels";
import { Labels } from "../../../drawing/notes";
import { type Px, pathOf } from "../../../drawing/projection";
import { Stale } from "../../../ui/Stale";
import { useSize } from "../../../ui/useSize";
import { type Preview, useAnswers, useDocument, usePreview, useSelection, useStores } from "../benchStores";
import { snapped, stepsOf } from "../moving";
import { RunPicker } from "../RunPicker";
import { poolLine, type Strip, type StripLength, type StripPoint, sameMover, unroll } from "../stripGeometry";
import { useActions } from "../useActions";
import { ViewFrame } from "./ViewFrame";

const margin = { left: 62, right: 44, top: 26, bottom: 40 };

/** The run in hand and its way to the drain, unrolled along its length with heights exaggerated. Heights are dragged here, or nudged with keys. */
export function FallStrip() {
  const rig = useDocument((s) => s.rig) as Rig;
  const answers = useAnswers((s) => s.answers);
  const about = useAnswers((s) => s.about);
  const stale = useAnswers((s) => s.stale);
  const conditions = useAnswers((s) => s.conditions);
  const night = useAnswers((s) => s.night);
  const wantedId = useSelection((s) => s.stripRunId);
  const print = usePrint();
  const { stock, numbers, bores } = useCatalogue();
  const svg = useRef<SVGSVGElement>(null);
  const runId = wantedId ?? rig.runs[0]?.id ?? null;
  const drainDown = answers?.drainDown;
  const full = conditions?.water === "wet";
  const strip = useMemo(
    () =>
      runId
        ? unroll(
            { rig, stock, bores, parked: conditions?.parked, answers: drainDown && about ? { drain: drainDown, about } : null, full },
            runId,
          )
        : null,
    [rig, stock, bores, conditions?.parked, drainDown, about, full, runId],
  );
  const preview = usePreview();
  const ghost = useMemo(() => {
    const there = preview && runId && indexOf(preview.rig).runs.has(runId) ? preview : null;
    // It runs the way it runs now; what stays in it is not told here.
    const way = drainDown && there ? { drain: drainDown, about: there.rig } : null;
    const unrolled =
      there && unroll({ rig: there.rig, stock, bores, parked: conditions?.parked, answers: way, full: false }, runId as string);
    return there && unrolled ? { preview: there, strip: unrolled } : null;
  }, [preview, runId, stock, bores, conditions?.parked, drainDown]);
  const drain = drainDown?.runs.find((r) => r.runId === runId);
  const run = runId ? indexOf(rig).runs.get(runId) : undefined;
  const told = night?.water === "wet" ? "wet" : "drained";
  return (
    <ViewFrame
      title="Fall strip"
      name={`${rig.name}, fall strip of ${run?.name ?? ""}`}
      svg={svg}
      hint={
        <span className="inline-flex items-center gap-3">
          {run && <RunPicker runs={rig.runs} runId={run.id} />}
          {drain && run && strip && (
            <Stale as="span" stale={stale}>
              {summary(drain, strip, numbers.dryRunL, print, told)}
            </Stale>
          )}
        </span>
      }
    >
      {strip ? (
        <StripSvg
          strip={strip}
          ghost={ghost}
          pool={full ? null : poolLine(strip, drainDown?.pools ?? [], runId ?? "")}
          rig={rig}
          print={print}
          svg={svg}
        />
      ) : (
        <p className="p-4 text-muted">Take a run in a drawing, or draw one.</p>
      )}
    </ViewFrame>
  );
}

function summary(drain: Schema["RunDrain"], strip: Strip, dryRunL: number, print: Print, told: "wet" | "drained") {
  const end = drain.routeEnd ? `its way leads to ${drain.routeEnd.words}` : "it has no way out";
  const held = drain.retainedL > dryRunL ? `${print(drain.retainedL, "volume")} stays after draining` : "runs dry";
  return `${print(strip.ownM, "length")} long · ${told === "wet" ? `full, ${print(drain.fullL, "volume")}` : held} · ${end}`;
}

interface StripProps {
  strip: Strip;
  /** A fix that is looked at before it is done. */
  ghost: { preview: Preview; strip: Strip } | null;
  pool: ReturnType<typeof poolLine>;
  rig: Rig;
  print: Print;
  svg: React.RefObject<SVGSVGElement | null>;
}

function StripSvg({ strip: now, ghost, pool, rig, print, svg }: StripProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const { document, selection } = useStores();
  const things = useSelection((s) => s.things);
  const actions = useActions();
  const system = useSettings((s) => s.system);
  // While a point is dragged the window keeps its scales, or the point would run from the finger.
  const [hold, setHold] = useState<{ strip: Strip; rig: Rig } | null>(null);
  const strip = now;
  const scale = hold?.strip ?? now;
  const w = Math.max(size.width - margin.left - margin.right, 10);
  const h = Math.max(size.height - margin.top - margin.bottom, 10);
  const span = Math.max(scale.highM - scale.lowM, 0.12) + 0.03;
  const kx = w / Math.max(scale.lengthM, 0.05);
  const ky = h / span;
  // A point keeps its place along the strip while it is dragged, however long its lengths become.
  const alongOf = (p: StripPoint) => {
    const i = strip.points.indexOf(p);
    return (hold && hold.strip.points.length === strip.points.length ? hold.strip.points[i] : p)?.alongM ?? p.alongM;
  };
  const x = (m: number) => margin.left + m * kx;
  const y = (m: number) => margin.top + h - (m - scale.lowM + 0.008) * ky;
  const at = (p: StripPoint): Px => ({ x: x(alongOf(p)), y: y(p.heightM) });
  const thick = (boreM: number) => Math.max(boreM * ky, 7) / ky;
  const isChosen = (p: StripPoint) => things.some((t) => t.kind === "point" && t.runId === p.runId && t.pointId === p.pointId);
  const take = (p: StripPoint) => selection.take({ kind: "point", runId: p.runId, pointId: p.pointId });

  useGesture(
    {
      onDrag: ({ event, first, last, movement: [, dy], memo, tap, shiftKey, canceled }) => {
        if (memo === null) return null;
        const from = memo ? (memo as { point: StripPoint }).point : pointOfEvent(event, strip);
        if (!from) return null;
        const start = memo ? (memo as { rig: Rig }).rig : rig;
        if (first) {
          takeInStrip(from);
          if (from.mover) setHold({ strip, rig });
        }
        if (from.mover && !tap && dy !== 0) {
          const step = shiftKey ? stepsOf(system).fine : stepsOf(system).plain;
          const by = snapped(from.builtM - dy / ky, step) - from.builtM;
          const edits = movedBy(start, [from.mover], { xM: 0, yM: 0, zM: by }, actions.fixed);
          if (canceled) document.letGo();
          else if (!last) document.drag(edits);
          // A drag that was called off leaves nothing in hand.
          else if (document.holds()) actions.commit(`Height of ${nameFor(from)} by drag`, edits);
        }
        if (last) setHold(null);
        return { point: from, rig: start };
      },
    },
    {
      target: svg,
      drag: { filterTaps: true, pointer: { keys: false }, threshold: 2, preventDefault: true },
      eventOptions: { passive: false },
    },
  );
  /** A point of the way beyond the run in hand is taken without leaving the strip. */
  const takeInStrip = (p: StripPoint) => {
    const own = selection.getState().stripRunId ?? strip.points[0]?.runId ?? null;
    take(p);
    if (own && p.runId !== own) selection.setState({ stripRunId: own });
  };

  const grid = gridLines(scale.lowM, scale.highM, span, system);
  const handles = strip.points.filter((p, i) => i === 0 || !sameMover(p.mover, strip.points[i - 1]?.mover ?? null));
  const wedges = strip.lengths.flatMap((l) => wedgeOf(l, rig.brief.leastFall, at, x, y, alongOf) ?? []);
  const poolText = pool && `stands to ${print(pool.levelM, "length")}${pool.crest ? `, the crest at ${pool.crest}` : ""}`;
  const names = placeLabels(
    [
      ...(pool && poolText
        ? [{ id: "pool", text: poolText, x: x(pool.fromM), y: y(pool.levelM), width: x(pool.toM) - x(pool.fromM), height: 1, rank: -1 }]
        : []),
      ...handles.flatMap((p, i) =>
        p.name
          ? [
              {
                id: `${p.runId}:${p.pointId}`,
                text: p.name.slice(0, 40),
                x: at(p).x - 9,
                y: at(p).y - 8,
                width: 18,
                height: 18,
                rank: p.own ? 0 : i,
              },
            ]
          : [],
      ),
      ...strip.bodies
        .filter((b) => b.kind === "arch")
        .map((b) => ({
          id: `body:${b.name}${b.fromM}`,
          text: b.name,
          x: x(b.fromM),
          y: y(b.highM),
          width: x(b.toM) - x(b.fromM),
          height: 4,
          rank: 60,
        })),
    ],
    [
      ...handles.map((p) => ({ x: at(p).x - 7, y: at(p).y - 7, width: 14, height: 14 })),
      { x: 0, y: 0, width: margin.left - 14, height: size.height },
    ],
    { width: size.width, height: size.height - margin.bottom },
    [strip.points.map(at)],
  );

  return (
    <div ref={box} className="relative min-h-0 grow overflow-hidden [contain:strict] will-change-transform">
      {size.width > 0 && (
        <svg ref={svg} width={size.width} height={size.height} className="absolute inset-0 block touch-none select-none" data-strip>
          <title>Heights along the way to the drain</title>
          <clipPath id="strip-window">
            <rect x={margin.left - 20} y={0} width={size.width - margin.left + 10} height={size.height - margin.bottom + 16} />
          </clipPath>
          {grid.map((g) => (
            <g key={g}>
              <line x1={margin.left} x2={size.width - 10} y1={y(g)} y2={y(g)} stroke="var(--rule)" />
              <text x={margin.left - 8} y={y(g) + 4} textAnchor="end" style={{ fill: "var(--muted)" }}>
                {print(g, "length")}
              </text>
            </g>
          ))}
          <g clipPath="url(#strip-window)">
            {strip.bodies.map((b, i) => (
              <rect
                key={`${b.name}:${i}`}
                x={x(b.fromM)}
                y={y(b.highM)}
                width={Math.max(2, x(b.toM) - x(b.fromM))}
                height={Math.max(0, y(b.lowM) - y(b.highM))}
                fill={b.kind === "arch" ? "url(#solid-hatch)" : "var(--sunk)"}
                stroke="var(--strong)"
              />
            ))}
            <path
              d={pathOf(strip.floor.map((f) => ({ x: x(f.alongM), y: y(f.heightM) })))}
              fill="none"
              stroke="var(--strong)"
              strokeWidth={2}
              strokeDasharray="1 4"
              strokeLinecap="round"
            />
            {wedges.map((p, i) => (
              <path key={`wedge:${i}`} d={`${pathOf(p)}Z`} fill="var(--strong)" opacity={0.4} />
            ))}
          </g>
          {strip.lengths.map((l) => (
            <Bore key={key(l)} length={l} at={at} x={x} y={y} alongOf={alongOf} thickM={thick(l.boreM)} />
          ))}
          {strip.ownM < strip.lengthM && (
            <g>
              <line
                x1={x(strip.ownM)}
                x2={x(strip.ownM)}
                y1={6}
                y2={size.height - margin.bottom + 6}
                stroke="var(--strong)"
                strokeDasharray="2 4"
              />
              <text x={x(strip.ownM) + 6} y={14} style={{ fill: "var(--muted)" }}>
                its way to the drain
              </text>
            </g>
          )}
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
          <Falls lengths={strip.lengths} leastFall={rig.brief.leastFall} at={at} yText={size.height - 22} print={print} />
          <Labels
            labels={names}
            styleOf={(id) =>
              id === "pool" ? { fill: "var(--stays)", fontWeight: 600 } : id.startsWith("body") ? { fill: "var(--muted)" } : {}
            }
          />
          {ghost && (
            <StripGhost
              points={ghost.strip.points.filter((p) => p.own).map((p) => ({ x: x(p.alongM), y: y(p.heightM) }))}
              band={ghost.preview.band ?? null}
              at={handles.find((p) => p.runId === ghost.preview.band?.runId && p.pointId === ghost.preview.band?.pointId)}
              x={(p) => at(p).x}
              y={y}
              print={print}
            />
          )}
          {handles.map((p) => (
            <Handle
              key={`${p.runId}:${p.pointId}`}
              point={p}
              at={at(p)}
              held={isChosen(p)}
              print={print}
              onFocus={() => takeInStrip(p)}
              onKey={(e) => {
                if (p.mover) actions.key(e, null, "zM", [p.mover]);
              }}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

/** A fix in the strip: the course it would give, and the heights between which its point may lie. */
function StripGhost(props: {
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

const nameFor = (p: StripPoint) => p.name ?? `bend ${p.number}`;

function Handle(props: { point: StripPoint; at: Px; held: boolean; print: Print; onFocus(): void; onKey(e: React.KeyboardEvent): void }) {
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

const key = (l: StripLength) => `${l.from.runId}:${l.from.pointId}`;

function pointOfEvent(event: Event, strip: Strip): StripPoint | null {
  const id = (event.target as Element).closest("[data-point]")?.getAttribute("data-point");
  return strip.points.find((p) => `${p.runId}:${p.pointId}` === id) ?? null;
}

/** The bore as two edges, filled where water stays. */
function Bore(props: {
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
  const outline = `${pathOf([corner(0, 0), corner(1, 0), corner(1, thickM), corner(0, thickM)])}Z`;
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
      <path d={outline} fill="var(--sunk)" />
      {water && <path d={water} fill="var(--stays)" data-wet={l.from.runId} />}
      <path d={pathOf([corner(0, 0), corner(1, 0)])} stroke="var(--ink)" strokeWidth={l.own ? 1.6 : 1.1} />
      <path d={pathOf([corner(0, thickM), corner(1, thickM)])} stroke="var(--ink)" strokeWidth={l.own ? 1.2 : 0.8} />
    </g>
  );
}

/** The least fall, as a wedge standing on the lower end of a length: a pipe inside it is too flat. */
function wedgeOf(
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
function Falls(props: { lengths: StripLength[]; leastFall: number; at(p: StripPoint): Px; yText: number; print: Print }) {
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

function gridLines(low: number, high: number, span: number, system: Schema["UnitSystem"]) {
  const inch = 0.0254;
  const steps = system === "metric" ? [0.02, 0.05, 0.1, 0.2, 0.5] : [1, 2, 4, 6, 12, 24].map((i) => i * inch);
  const step = steps.find((s) => span / s <= 7) ?? 1;
  const first = Math.ceil((low - 0.008) / step);
  const count = Math.floor((high + 0.02) / step) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * step);
}
