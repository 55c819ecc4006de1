import type { Schema } from "../../api/client";
import { lasting, say, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { useNow } from "./useNow";

type Step = Schema["ProcedureStep"];

/** 1:02:09, or 4:30. */
export function countdown(seconds: number): string {
  const s = Math.max(0, Math.ceil(seconds));
  const [h, m, rest] = [Math.floor(s / 3600), Math.floor(s / 60) % 60, s % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  return h > 0 ? `${h}:${two(m)}:${two(rest)}` : `${m}:${two(rest)}`;
}

/** What is left of a wait: it goes by the time at which it was started, so that it goes on while the page is closed. */
export function Countdown({ startedAt, step, large = false }: { startedAt: string; step: Step; large?: boolean }) {
  const now = useNow(true);
  const print = usePrint();
  const gone = (now - Date.parse(startedAt)) / 1000;
  const least = step.shortestS ?? 0;
  const over = gone >= least;
  return (
    <div
      className={`flex items-baseline gap-3 rounded-md px-3 py-2 ${over ? "bg-ink text-panel" : "bg-sunk"}`}
      data-timer={over ? "over" : "runs"}
    >
      <strong className={`font-semibold tabular-nums ${large ? "text-[34px]" : "text-[21px]"}`}>
        {over ? "Time is up" : countdown(least - gone)}
      </strong>
      <span className={over ? "" : "text-muted"}>
        {over ? `${lasting(gone, print)} gone` : `left of ${lasting(least, print)}`}
        {step.longestS != null && step.longestS > least && `, at most ${lasting(step.longestS, print)}`}
      </span>
    </div>
  );
}

/** Waits of other steps that go on meanwhile. */
export function Timers({ view, index, onStep }: { view: Schema["WalkView"]; index: number; onStep(at: number): void }) {
  const print = usePrint();
  const running = view.steps
    .map((stand, i) => ({ stand, i, step: view.procedure.steps[i] as Step }))
    .filter(({ stand, i }) => i !== index && stand.timerAt && stand.stand === "open" && !view.endedAt);
  if (running.length === 0) return null;
  return (
    <Panel className="p-3" aria-label="Timers">
      <ul className="flex flex-col gap-2">
        {running.map(({ stand, step, i }) => (
          <li key={step.id}>
            <button type="button" className="w-full text-left" onClick={() => onStep(i)}>
              <span className="block truncate">
                Step {i + 1}: {say(step.words, print)}
              </span>
              <Countdown startedAt={stand.timerAt as string} step={step} />
            </button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
