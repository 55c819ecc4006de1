import { memo } from "react";
import { usePrint } from "../../../app/units";
import { distance, freePorts, type Rig } from "../../../document/geometry";
import { type Frame, pathOf, toPx, type View } from "../../../drawing/projection";
import { useDocument, useDrawing } from "../benchStores";
import { lastOf } from "../runDrawing";

/** The run that is being drawn: its course so far, the length under the hand, and the ports that it may end on. */
export function RunGhost({ view, frame }: { view: View; frame: Frame }) {
  const drawing = useDrawing((d) => d);
  const rig = useDocument((s) => s.rig) as Rig;
  const print = usePrint();
  if (!drawing) return null;
  const last = lastOf(drawing);
  const course = [...(drawing.start ? [drawing.start.at] : []), ...drawing.bends].map((p) => toPx(view, frame, p));
  const to = drawing.over?.at ?? drawing.pointer;
  const tip = to && toPx(view, frame, to);
  const far = last && to ? distance(last, to) : 0;
  const flat = last && to ? Math.hypot(to.xM - last.xM, to.yM - last.yM) : 0;
  const fall = last && to ? last.zM - to.zM : 0;
  const words =
    far < 0.001
      ? ""
      : `${print(far, "length")}${flat < 0.001 ? ", plumb" : `, ${fall >= 0 ? "falls" : "rises"} ${print(Math.abs(fall) / far, "fall")}`}, ${print(to?.zM, "length")} high`;
  return (
    <g className="pointer-events-none" data-ghost={view}>
      <FreePorts rig={rig} view={view} frame={frame} />
      <path
        d={pathOf(tip && last ? [...course, tip] : course)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeDasharray="7 4"
        strokeLinejoin="round"
      />
      {course.map((p, i) => (
        <circle key={`${p.x}:${p.y}:${i}`} cx={p.x} cy={p.y} r={5} fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
      ))}
      {tip && <circle cx={tip.x} cy={tip.y} r={drawing.over ? 10 : 4} fill="none" stroke="var(--ink)" strokeWidth={2} />}
      {tip && words && drawing.view === view && (
        <text
          x={Math.min(tip.x + 14, frame.width - 190)}
          y={Math.max(16, tip.y - 12)}
          fontWeight={650}
          style={{ paintOrder: "stroke" }}
          stroke="var(--panel)"
          strokeWidth={4}
        >
          {words}
        </text>
      )}
    </g>
  );
}

/** Ports that no run has yet. */
const FreePorts = memo(function FreePorts({ rig, view, frame }: { rig: Rig; view: View; frame: Frame }) {
  const d = freePorts(rig)
    .map((p) => toPx(view, frame, p.at))
    .map((at) => `M${(at.x - 5).toFixed(1)} ${(at.y - 5).toFixed(1)}h10v10h-10z`)
    .join("");
  return <path d={d} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />;
});
