import type { Schema } from "../../api/client";
import { courseOf, indexOf, middleOf, type Rig, type Xyz } from "../../document/geometry";
import { type Px, pathOf } from "../../drawing/projection";
import "./leaving.css";

interface Props {
  rig: Rig;
  /** What holds water before the step, and after it. */
  before: Schema["DrainDownAnswer"];
  after: Schema["DrainDownAnswer"];
  /** What the step opens. */
  partIds: string[];
  px(p: Xyz): Px;
}

/** Less than this is not seen to leave, L. */
const SEEN_L = 0.002;

/** The water that a step lets out: it fades from its lines while it drops from what was opened. */
export function Leaving({ rig, before, after, partIds, px }: Props) {
  const { runs, parts } = indexOf(rig);
  const kept = new Map(after.runs.map((r) => [r.runId, r.staysL]));
  const lines = before.runs.flatMap((r) => {
    const run = r.staysL - (kept.get(r.runId) ?? 0) > SEEN_L && runs.get(r.runId);
    return run ? [{ id: r.runId, d: pathOf(courseOf(rig, run).map((p) => px(p.at))) }] : [];
  });
  const drops = partIds.flatMap((id) => {
    const part = parts.get(id);
    return part ? [{ id, at: px(middleOf(part.box)) }] : [];
  });
  return (
    <g className="pointer-events-none motion-reduce:hidden" data-leaving={lines.length}>
      {lines.map((l) => (
        <path key={l.id} d={l.d} className="leaving-water" fill="none" stroke="var(--full)" strokeWidth={7} strokeLinecap="round" />
      ))}
      {drops.flatMap((d) =>
        [0, 1, 2].map((n) => (
          <path
            key={`${d.id}${n}`}
            d={`M${d.at.x} ${d.at.y + 4}c3 5 5 6 5 9a5 5 0 0 1 -10 0c0 -3 2 -4 5 -9z`}
            className="leaving-drop"
            style={{ "--drop": n } as React.CSSProperties}
            fill="var(--full)"
          />
        )),
      )}
    </g>
  );
}
