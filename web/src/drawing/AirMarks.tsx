import { memo, useMemo } from "react";
import type { Schema } from "../api/client";
import { courseOf, type Rig, type Xyz } from "../document/geometry";
import { type Px, pathOf } from "./projection";

type Carries = Schema["AirCarries"];

/** How a line is drawn by what the air does in it; dashes tell them apart in print and for colour-blind eyes. */
const strokes: Record<Carries, { stroke: string; width: number; dash?: string }> = {
  all: { stroke: "var(--safe)", width: 4 },
  plugs: { stroke: "var(--ink)", width: 3, dash: "10 4" },
  // The colour of water that stays.
  bubbles: { stroke: "var(--stays)", width: 4, dash: "2 5" },
  none: { stroke: "var(--stays)", width: 6 },
};

export const carryWords: Record<Carries, string> = {
  all: "swept clean but for a film",
  plugs: "pushed out in plugs",
  bubbles: "air bubbles through",
  none: "dead leg",
};

/** What the air does in every line: of one outlet, or the best of all. */
export const AirMarks = memo(function AirMarks({
  rig,
  air,
  stepId,
  px,
}: {
  rig: Rig;
  air: Schema["BlowOutAnswer"];
  stepId: string | null;
  px(p: Xyz): Px;
}) {
  const lines = useMemo(() => {
    const by = new Map(air.runs.map((r) => [r.runId, r]));
    const step = air.steps.find((s) => s.id === stepId);
    return rig.runs.flatMap((run) => {
      const of = by.get(run.id);
      if (!of || (step && !step.runIds.includes(run.id))) return [];
      const carries: Carries = step ? step.carries : of.carries;
      // What holds nothing has nothing to be swept.
      if (!step && carries === "none" && of.beforeL < 0.0005) return [];
      return [{ id: run.id, carries, d: pathOf(courseOf(rig, run).map((p) => px(p.at))) }];
    });
  }, [rig, air, stepId, px]);
  return (
    <g className="pointer-events-none" data-air={lines.length}>
      {lines.map((l) => (
        <path
          key={l.id}
          d={l.d}
          data-carries={l.carries}
          fill="none"
          stroke={strokes[l.carries].stroke}
          strokeWidth={strokes[l.carries].width}
          strokeDasharray={strokes[l.carries].dash}
          strokeLinecap="round"
          strokeOpacity={l.carries === "none" ? 0.55 : 1}
        />
      ))}
    </g>
  );
});

/** What the strokes mean. */
export function AirLegend() {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-muted" aria-label="What the air does">
      {(["all", "plugs", "bubbles", "none"] as const).map((c) => (
        <li key={c} className="flex items-center gap-1.5">
          <svg width="28" height="8" aria-hidden="true">
            <path
              d="M2 4H26"
              stroke={strokes[c].stroke}
              strokeWidth={strokes[c].width}
              strokeDasharray={strokes[c].dash}
              strokeOpacity={c === "none" ? 0.55 : 1}
            />
          </svg>
          {carryWords[c]}
        </li>
      ))}
    </ul>
  );
}
