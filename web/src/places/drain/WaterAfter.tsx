import { ChevronLeft, ChevronRight } from "lucide-react";
import { useMemo, useState } from "react";
import { say, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import type { Tag } from "../../drawing/discs";
import { toPx, wholeFrame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Button, Panel, Slider } from "../../ui/controls";
import { PlayButton } from "../../ui/PlayButton";
import { usePlay } from "../../ui/usePlay";
import { useSize } from "../../ui/useSize";
import { useAnswers } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";
import { FixGhost } from "../bench/views/FixGhost";
import { Leaving } from "./Leaving";
import { doneParts } from "./useLeft";

const HEIGHT = 270;
/** Long enough to see a step's water leave. */
const STEP_MS = 1700;

/** Until the last step it is water that is still there, not water that stays. */
const onItsWay = { "--stays": "var(--full)" } as React.CSSProperties;

/** The water going down, step by step, from the kerb and as the vehicle is tipped. */
export function WaterAfter({ rig, count, steps, onCount }: { rig: Rig; count: number; steps: number; onCount(count: number): void }) {
  const [box, size] = useSize<HTMLDivElement>();
  const print = usePrint();
  const order = useAnswers((s) => s.answers?.drainOrder);
  const parked = useAnswers((s) => s.conditions?.parked);
  const done = useMemo(() => doneParts(rig.left ?? []), [rig.left]);
  const tags = useMemo(
    () =>
      (order?.steps ?? []).flatMap((s, i): Tag[] =>
        s.partIds.map((partId) => ({ partId, number: i + 1, done: done.has(partId), chosen: count === i + 1 })),
      ),
    [order, count, done],
  );
  const asked = useAsked("afterStep", { steps: count });
  const before = useAsked("afterStep", count > 0 ? { steps: count - 1 } : null).data?.drainDown;
  // Until the step is answered, the water stands as it did before it.
  const drainDown = asked.data?.drainDown ?? before;
  // Water leaves when a step is done here, not when the place is opened.
  const [opened] = useState(count);
  const [moved, setMoved] = useState(false);
  const play = usePlay({ at: count, end: steps, step: 1, everyMs: STEP_MS, waits: !asked.data, onAt: (n) => go(n) });
  const go = (n: number) => {
    setMoved(moved || n !== opened);
    onCount(n);
  };
  const byHand = (n: number) => {
    play.stop();
    go(n);
  };
  const frame = wholeFrame(rig, "side", { width: size.width, height: HEIGHT }, 20);
  const step = order?.steps[count - 1];
  const stays = count === 0 ? order?.fullL : step?.staysL;
  return (
    <Panel className="p-3" aria-label="After each step">
      <div className="flex items-center gap-x-3">
        <h2 className="shrink-0 text-[17px] font-semibold">{count === 0 ? "Full, all closed" : `After step ${count}`}</h2>
        <p className="min-w-0 grow truncate text-muted">
          {stays != null && <strong className="font-semibold text-ink">{print(stays, "volume")} left</strong>}
          {step && ` · ${say(step.words, print)}`}
        </p>
        <div className="flex shrink-0 items-center">
          <PlayButton play={play} of="the draining" />
          <Button quiet aria-label="Step back" disabled={count === 0} onClick={() => byHand(count - 1)}>
            <ChevronLeft size={18} />
          </Button>
          <div className="w-28">
            <Slider
              label="Steps done"
              value={count}
              min={0}
              max={Math.max(1, steps)}
              step={1}
              text={`${count} of ${steps}`}
              onChange={byHand}
            />
          </div>
          <Button quiet aria-label="Step on" disabled={count >= steps} onClick={() => byHand(count + 1)}>
            <ChevronRight size={18} />
          </Button>
        </div>
      </div>
      <div
        ref={box}
        className="mt-2 overflow-hidden rounded-[5px] bg-ground"
        data-after={count}
        aria-busy={!asked.data}
        style={count < steps ? onItsWay : undefined}
      >
        {size.width > 0 && (
          <svg width={frame.width} height={frame.height} role="img" aria-label={`The water after ${count} steps, from the kerb`}>
            <g transform={parked?.pitchDeg ? `rotate(${-parked.pitchDeg} ${frame.width / 2} ${frame.height / 2})` : undefined}>
              <RigDrawing
                rig={rig}
                about={drainDown ? rig : null}
                answers={drainDown ? { drainDown } : null}
                view="side"
                frame={frame}
                lens="drain"
                tags={tags}
                onTag={byHand}
              />
              {moved && before && asked.data && (
                <Leaving
                  key={count}
                  rig={rig}
                  before={before}
                  after={asked.data.drainDown}
                  partIds={step?.partIds ?? []}
                  px={(p) => toPx("side", frame, p)}
                />
              )}
              <FixGhost px={(p) => toPx("side", frame, p)} />
            </g>
          </svg>
        )}
      </div>
    </Panel>
  );
}
