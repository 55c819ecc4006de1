import { memo, useMemo } from "react";
import type { Schema } from "../api/client";
import type { Print } from "../app/units";
import { courseOf, indexOf, type Rig, type Xyz } from "../document/geometry";
import { type Px, pathOf } from "./projection";
import { headAt } from "./sheetPaint";

type Heating = Schema["HeatingAnswer"];

/** Fluid from cold to hot, wider the hotter, so that none is told by colour alone; between two of these, colour and width are between. */
const steps = [
  { c: 0, stroke: "var(--ice)", width: 2.5 },
  { c: 20, stroke: "var(--near)", width: 3 },
  { c: 40, stroke: "var(--safe)", width: 3.5 },
  { c: 60, stroke: "var(--warm)", width: 4.5 },
  { c: 80, stroke: "var(--hot)", width: 5.5 },
] as const;

function strokeOf(c: number): { stroke: string; width: number } {
  const i = steps.findIndex((s) => c < s.c);
  const [a, b] = [steps[Math.max(0, (i < 0 ? steps.length : i) - 1)], steps[i]];
  if (!a || !b || a === b) return a ?? steps[0];
  const share = (c - a.c) / (b.c - a.c);
  return {
    stroke: `color-mix(in oklab, ${b.stroke} ${Math.round(100 * share)}%, ${a.stroke})`,
    width: a.width + share * (b.width - a.width),
  };
}

/** A part of a course between two places along it, m from its start. */
function cut(course: readonly { at: Xyz }[], fromM: number, toM: number): Xyz[] {
  const [low, high] = fromM < toM ? [fromM, toM] : [toM, fromM];
  const out: Xyz[] = [];
  let m = 0;
  for (let i = 0; i + 1 < course.length; i++) {
    const [a, b] = [course[i]?.at, course[i + 1]?.at];
    if (!a || !b) continue;
    const length = Math.hypot(b.xM - a.xM, b.yM - a.yM, b.zM - a.zM);
    const on = (t: number): Xyz => ({ xM: a.xM + (b.xM - a.xM) * t, yM: a.yM + (b.yM - a.yM) * t, zM: a.zM + (b.zM - a.zM) * t });
    if (length > 0 && m + length > low - 1e-9 && m < high + 1e-9) {
      const [s, e] = [Math.max(0, (low - m) / length), Math.min(1, (high - m) / length)];
      if (out.length === 0) out.push(on(s));
      out.push(on(e));
    }
    m += length;
  }
  return fromM < toM ? out : out.reverse();
}

/** Beads along a line, and an arrowhead on its longest length. */
function beadsOf(line: Px[], every: number): { beads: Px[]; arrow: string } {
  const beads: Px[] = [];
  let left = every / 2;
  let longest: { a: Px; b: Px; length: number } | null = null;
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i], line[i + 1]];
    if (!a || !b) continue;
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (!longest || length > longest.length) longest = { a, b, length };
    for (; left < length; left += every) beads.push({ x: a.x + ((b.x - a.x) * left) / length, y: a.y + ((b.y - a.y) * left) / length });
    left -= length;
  }
  return { beads, arrow: longest && longest.length >= 26 ? pathOf(headAt(longest.a, longest.b, 0.5)) : "" };
}

/** Watts at every part that gives heat at an hour, where they are written. */
export function wattsOf(rig: Rig, heating: Heating, hour: number, px: (p: Xyz) => Px, print: Print) {
  const { parts } = indexOf(rig);
  return heating.parts.flatMap((p) => {
    const part = parts.get(p.partId);
    const w = p.heatW[hour] ?? 0;
    if (!part || Math.abs(w) < 1) return [];
    const { at, size } = part.box;
    const place = px({ xM: at.xM + size.xM / 2, yM: at.yM + size.yM / 2, zM: at.zM + size.zM / 2 });
    return [{ id: p.partId, place, words: print(w, "power") }];
  });
}

/** The room that such a figure takes, so that names stay clear of it. */
export const wattsRoom = ({ place, words }: { place: Px; words: string }) => {
  const width = 8 * words.length + 6;
  return { x: place.x - width / 2, y: place.y - 9, width, height: 18 };
};

interface Props {
  rig: Rig;
  heating: Heating;
  /** Number of the hour that is looked at. */
  hour: number;
  px(p: Xyz): Px;
  print: Print;
}

/** What the fluid of the circuits is like along every metre, which way it goes, and what rests. */
export const HeatMarks = memo(function HeatMarks({ rig, heating, hour, px, print }: Props) {
  const lines = useMemo(() => {
    const runs = new Map(rig.runs.map((r) => [r.id, r]));
    return heating.lines.flatMap((l, i) => {
      const run = runs.get(l.runId);
      if (!run) return [];
      const path = cut(courseOf(rig, run), l.fromM, l.toM).map(px);
      const inC = l.inC[hour];
      const outC = l.outC[hour];
      const rests = inC == null || outC == null;
      const warm = rests ? null : strokeOf((inC + outC) / 2);
      return [{ key: i, d: pathOf(path), warm, warms: l.warms, ...beadsOf(path, 22 - Math.min(12, l.lPerMin[hour] ?? 0)) }];
    });
  }, [rig, heating, hour, px]);
  const watts = useMemo(() => wattsOf(rig, heating, hour, px, print), [rig, heating, hour, px, print]);
  return (
    <g className="pointer-events-none" data-heat={lines.length}>
      {lines.map((l) => (
        <g key={l.key}>
          <path
            d={l.d}
            fill="none"
            stroke={l.warm?.stroke ?? "var(--pipe)"}
            strokeWidth={l.warm?.width ?? 3}
            strokeDasharray={l.warm ? undefined : "3 6"}
            strokeLinecap="round"
          />
          {l.warms && <path d={l.d} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="1 5" />}
          {l.warm && l.beads.map((b) => <circle key={`${b.x} ${b.y}`} cx={b.x} cy={b.y} r={1.8} fill="var(--panel)" />)}
          {l.warm && l.arrow && <path d={l.arrow} fill="none" stroke="var(--ink)" strokeWidth={1.6} />}
        </g>
      ))}
      {watts.map((w) => (
        <text
          key={w.id}
          x={w.place.x}
          y={w.place.y + 5}
          textAnchor="middle"
          data-watts={w.id}
          style={{ fontWeight: 650, fill: "var(--ink)", stroke: "var(--panel)", strokeWidth: 4, paintOrder: "stroke" }}
        >
          {w.words}
        </text>
      ))}
    </g>
  );
});

/** What the widths and colours mean. */
export function HeatLegend({ print }: { print: Print }) {
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-1 text-muted" aria-label="Heating fluid">
      {steps.map((s) => (
        <li key={s.stroke} className="flex items-center gap-1.5">
          <svg width="26" height="10" aria-hidden="true">
            <path d="M3 5H23" stroke={s.stroke} strokeWidth={s.width} strokeLinecap="round" />
          </svg>
          {print(s.c, "temperature")}
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <svg width="26" height="10" aria-hidden="true">
          <path d="M3 5H23" stroke="var(--pipe)" strokeWidth={3} strokeDasharray="3 6" />
        </svg>
        at rest
      </li>
    </ul>
  );
}
