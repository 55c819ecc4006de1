import { useMemo } from "react";
import { plus, type Rig, type Xyz } from "../../../document/geometry";
import { ghostOf } from "../../../document/ghost";
import { type Px, pathOf } from "../../../drawing/projection";
import { useDocument, usePreview } from "../benchStores";

/** A fix before it is done, dashed over a view. */
export function FixGhost({ px }: { px(p: Xyz): Px }) {
  const rig = useDocument((s) => s.rig) as Rig;
  const preview = usePreview();
  const ghost = useMemo(() => preview && ghostOf(rig, preview.rig), [rig, preview]);
  if (!ghost) return null;
  return (
    <g className="pointer-events-none" data-fix-ghost fill="none" strokeLinejoin="round">
      {ghost.gone.map((r) => (
        <path key={r.id} d={pathOf(r.course.map(px))} stroke="var(--panel)" strokeWidth={4} opacity={0.7} />
      ))}
      {ghost.runs.map((r) => (
        <g key={r.id}>
          <path d={pathOf(r.course.map(px))} stroke="var(--panel)" strokeWidth={6} />
          <path d={pathOf(r.course.map(px))} stroke="var(--ink)" strokeWidth={2.5} strokeDasharray="7 4" />
        </g>
      ))}
      {preview?.chain && (
        <g data-chain>
          <path d={pathOf(preview.chain.map(px))} stroke="var(--ice)" strokeWidth={5} strokeLinecap="round" opacity={0.8} />
          {preview.chain.map(px).map((p) => (
            <circle key={`${p.x},${p.y}`} cx={p.x} cy={p.y} r={6} fill="var(--panel)" stroke="var(--ice)" strokeWidth={3} />
          ))}
        </g>
      )}
      {[...ghost.parts, ...ghost.rooms].map((p) => {
        const [a, b] = [px(p.box.at), px(plus(p.box.at, p.box.size))];
        const [x, y] = [Math.min(a.x, b.x) - 3, Math.min(a.y, b.y) - 3];
        return (
          <rect
            key={p.id}
            x={x}
            y={y}
            width={Math.max(9, Math.abs(a.x - b.x) + 6)}
            height={Math.max(9, Math.abs(a.y - b.y) + 6)}
            stroke="var(--ink)"
            strokeWidth={2}
            strokeDasharray="4 3"
          />
        );
      })}
    </g>
  );
}
