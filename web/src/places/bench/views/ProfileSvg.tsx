import { useGesture } from "@use-gesture/react";
import { useState } from "react";
import { useSettings } from "../../../app/settings";
import type { Print } from "../../../app/units";
import type { Rig } from "../../../document/geometry";
import { movedBy } from "../../../document/things";
import { placeLabels, widthOf } from "../../../drawing/labels";
import { Labels } from "../../../drawing/notes";
import { type Px, pathOf } from "../../../drawing/projection";
import { useSize } from "../../../ui/useSize";
import { type Preview, useSelection, useStores } from "../benchStores";
import { snapped, stepsOf } from "../moving";
import { type poolLine, type Strip, type StripPoint, sameMover } from "../profileGeometry";
import { useActions } from "../useActions";
import { Bore, Falls, gridLines, Handle, key, nameFor, pointOfEvent, StripGhost, wedgeOf } from "./profileMarks";

const margin = { left: 62, right: 44, top: 26, bottom: 40 };

interface StripProps {
  strip: Strip;
  /** A fix that is looked at before it is done. */
  ghost: { preview: Preview; strip: Strip } | null;
  pool: ReturnType<typeof poolLine>;
  rig: Rig;
  print: Print;
  svg: React.RefObject<SVGSVGElement | null>;
}

const SWIPE_PX = 40;

/** Where the way leaves the run that is selected. */
const ONWARDS = "on to the drain";

/** The strip itself, with the points that are dragged in it. */
export function ProfileSvg({ strip: now, ghost, pool, rig, print, svg }: StripProps) {
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
      onDrag: ({ event, first, last, movement: [dx, dy], memo, tap, shiftKey, canceled }) => {
        const from = memo === null ? null : memo ? (memo as { point: StripPoint }).point : pointOfEvent(event, strip);
        if (!from) {
          // A swipe beside the points goes to the next of them, as pages are turned.
          if (last && !canceled && Math.abs(dx) > Math.max(SWIPE_PX, 2 * Math.abs(dy))) actions.walk(dx < 0 ? 1 : -1);
          return null;
        }
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
  const poolText = pool && `water level ${print(pool.levelM, "length")}${pool.crest ? `, held by the high point at ${pool.crest}` : ""}`;
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
                led: p.own,
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
      ...(strip.ownM < strip.lengthM ? [{ x: x(strip.ownM) + 4, y: 2, width: widthOf(ONWARDS), height: 16 }] : []),
    ],
    { width: size.width, height: size.height - margin.bottom },
    [strip.points.map(at)],
  );

  return (
    <div ref={box} className="relative min-h-0 grow overflow-hidden [contain:strict] will-change-transform">
      {size.width > 0 && (
        <svg ref={svg} width={size.width} height={size.height} className="absolute inset-0 block touch-none select-none" data-strip>
          <title>Heights along the run to its drain</title>
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
                {ONWARDS}
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
