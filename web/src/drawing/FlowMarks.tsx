import { memo, useMemo } from "react";
import type { Schema } from "../api/client";
import { courseOf, type Rig, type Xyz } from "../document/geometry";
import type { Hung } from "./discs";
import { type Px, pathOf } from "./projection";
import { headAt } from "./sheetPaint";
import "./flow.css";

/** From dash to dash, px. */
const DASH = 12;

/** Water on its way: dashes that move along the lines, the faster the more flows; standing still they are arrowheads. */
export const FlowMarks = memo(function FlowMarks({ rig, flow, px }: { rig: Rig; flow: Schema["WaterFlowAnswer"]; px(p: Xyz): Px }) {
  const lines = useMemo(() => {
    const by = new Map(flow.runs.map((r) => [r.runId, r.lPerMin]));
    return rig.runs.flatMap((run) => {
      const q = by.get(run.id) ?? 0;
      if (q === 0) return [];
      const course = courseOf(rig, run).map((p) => px(p.at));
      const laid = q > 0 ? course : course.reverse();
      return [{ id: run.id, d: pathOf(laid), heads: headsOf(laid), s: Math.min(3, Math.max(0.3, 3 / Math.abs(q))) }];
    });
  }, [rig, flow, px]);
  return (
    <g className="pointer-events-none" data-flows={lines.length}>
      {lines.map((l) => (
        <g key={l.id}>
          <path
            d={l.d}
            className="flow-dash"
            fill="none"
            stroke="var(--panel)"
            strokeWidth={2}
            strokeLinecap="round"
            strokeDasharray={`3 ${DASH - 3}`}
            style={{ "--flow": `${l.s}s`, "--dash": `${-DASH}px` } as React.CSSProperties}
          />
          <path d={l.heads} fill="none" stroke="var(--ink)" strokeWidth={1.8} strokeLinecap="round" />
        </g>
      ))}
    </g>
  );
});

/** An arrowhead in the middle of the longest length, where that has room for one. */
function headsOf(laid: Px[]): string {
  const legs = laid.slice(1).map((b, i) => ({ a: laid[i] as Px, b, length: Math.hypot(b.x - (laid[i] as Px).x, b.y - (laid[i] as Px).y) }));
  const leg = legs.reduce<(typeof legs)[number] | null>((most, l) => (most && most.length >= l.length ? most : l), null);
  if (!leg || leg.length < 22) return "";
  return pathOf(headAt(leg.a, leg.b, 0.5));
}

/** What is turned by a hand: a tap, a valve, a pump, a drain. */
export interface Knob {
  partId: string;
  name: string;
  kind: "tap" | "valve" | "pump" | "drain";
  on: boolean;
  /** Water stands at it. */
  shut: boolean;
  /** What comes out. */
  figure: string | null;
  chosen: boolean;
}

const KNOB = { width: 28, height: 26 };

/** How much room a knob takes from names. */
export const knobRoom = (k: Hung<Knob>) => ({
  x: k.at.x - KNOB.width / 2,
  y: k.at.y - KNOB.height / 2,
  width: KNOB.width + (k.figure ? k.figure.length * 6.4 + 6 : 0),
  height: KNOB.height,
});

/** Knobs beside their parts: a handle that lies along its string lets water through, one across it does not. */
export function Knobs({ knobs, onKnob }: { knobs: Hung<Knob>[]; onKnob: ((partId: string) => void) | undefined }) {
  return knobs.map(({ at, anchor, partId, name, kind, on, shut, figure }) => {
    const turn = (Math.atan2(at.y - anchor.y, at.x - anchor.x) * 180) / Math.PI + (on ? 0 : 90);
    const [paper, ink] = on ? ["var(--line-cold)", "var(--panel)"] : ["var(--panel)", shut ? "var(--ink)" : "var(--muted)"];
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a valve is the list beside the drawing
      <g key={partId} className="cursor-pointer" onClick={() => onKnob?.(partId)} data-knob={partId} data-on={on}>
        <title>{`${name}: ${on ? "open" : "closed"}`}</title>
        <path d={pathOf([anchor, at])} stroke="var(--strong)" strokeWidth={1} />
        <circle cx={at.x} cy={at.y} r={20} fill="transparent" />
        <circle cx={at.x} cy={at.y} r={10} fill={paper} stroke={shut || on ? "var(--ink)" : "var(--muted)"} strokeWidth={shut ? 2 : 1.25} />
        {kind === "pump" ? (
          <path d={`M${at.x - 3} ${at.y - 5}l8 5l-8 5z`} fill={ink} className={on ? "flow-turns" : undefined} />
        ) : kind === "valve" ? (
          <rect x={at.x - 6.5} y={at.y - 1.8} width={13} height={3.6} rx={1.5} fill={ink} transform={`rotate(${turn} ${at.x} ${at.y})`} />
        ) : kind === "drain" ? (
          <path d={`M${at.x - 5} ${at.y - 3.5}h10l-5 8z`} fill={on ? ink : "none"} stroke={ink} strokeWidth={1.4} strokeLinejoin="round" />
        ) : (
          <path
            d={`M${at.x} ${at.y - 6}c3 5 4.5 6 4.5 8.4a4.5 4.5 0 0 1 -9 0c0 -2.4 1.5 -3.4 4.5 -8.4z`}
            fill={on ? ink : "none"}
            stroke={ink}
            strokeWidth={1.4}
          />
        )}
        {figure && (
          <text x={at.x + 14} y={at.y + 4.5} fontWeight={650} style={{ paintOrder: "stroke" }} stroke="var(--panel)" strokeWidth={3}>
            {figure}
          </text>
        )}
      </g>
    );
  });
}
