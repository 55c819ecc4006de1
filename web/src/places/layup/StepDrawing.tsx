import { useMemo } from "react";
import type { Schema } from "../../api/client";
import { indexOf, type Rig } from "../../document/geometry";
import { AirLegend } from "../../drawing/AirMarks";
import type { Tag } from "../../drawing/discs";
import { type View, wholeFrame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";

const HEIGHT = 290;
/** On a phone the step has to have room below. */
const NARROW = 480;
const NARROW_HEIGHT = 150;

/** What the drawing is about: the parts of a step, and what air does. */
export interface Shown {
  partIds: readonly string[];
  /** The number of the step, which hangs on its parts; null: it has none. */
  number: number | null;
  title: string;
  air: Schema["BlowOutAnswer"] | null;
  /** The outlet whose air is drawn; null: the best of all. */
  stepId: string | null;
}

/** The rig from the kerb and from above with just this step on it. */
export function StepDrawing({ rig, shown }: { rig: Rig; shown: Shown }) {
  const [box, size] = useSize<HTMLDivElement>();
  const narrow = size.width < NARROW;
  const views: View[] = narrow ? ["side"] : ["side", "plan"];
  const tags = shown.partIds.map((partId): Tag => ({ partId, number: shown.number ?? 1, done: false, chosen: true }));
  // What the step is about stays; the rest goes pale.
  const way = useMemo(() => {
    if (shown.partIds.length === 0 || shown.air) return null;
    const { runsAt } = indexOf(rig);
    return { runs: new Set(shown.partIds.flatMap((id) => (runsAt.get(id) ?? []).map((r) => r.id))), parts: new Set(shown.partIds) };
  }, [rig, shown]);
  return (
    <Panel className="p-3 max-[1000px]:-order-1 max-[480px]:p-1 min-[1000px]:sticky min-[1000px]:top-3" aria-label="Where it is">
      <h2 className="truncate text-[17px] font-semibold max-[480px]:hidden">{shown.title || "The whole rig"}</h2>
      {shown.air && <AirLegend />}
      <div
        ref={box}
        className="mt-2 flex flex-col gap-1 overflow-hidden max-[480px]:mt-0 rounded-[5px] bg-ground"
        data-step-drawing={shown.partIds.join(" ")}
      >
        {size.width > 0 &&
          views.map((view) => {
            const frame = wholeFrame(rig, view, { width: size.width, height: narrow ? NARROW_HEIGHT : HEIGHT }, narrow ? 8 : 20);
            return (
              <svg key={view} width={frame.width} height={frame.height} role="img" aria-label={`${shown.title || "The rig"}, ${view}`}>
                <RigDrawing
                  rig={rig}
                  about={null}
                  answers={null}
                  view={view}
                  frame={frame}
                  lens={shown.air ? "air" : "water"}
                  tags={tags}
                  way={way}
                  air={shown.air}
                  outletId={shown.stepId}
                />
              </svg>
            );
          })}
      </div>
    </Panel>
  );
}
