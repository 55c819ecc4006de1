import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { rowClass } from "../layup/rowClass";

/** All steps, and how each stands. */
export function StepList({ view, index, onStep }: { view: Schema["WalkView"]; index: number; onStep(at: number): void }) {
  const print = usePrint();
  return (
    <Panel className="p-3" aria-label="All steps">
      <ol className="flex flex-col">
        {view.procedure.steps.map((s, i) => {
          const stand = view.steps[i] as Schema["WalkStep"];
          return (
            <li key={s.id} data-stand={stand.stand}>
              <button type="button" className={rowClass} aria-pressed={i === index} onClick={() => onStep(i)}>
                <span className="w-6 shrink-0 text-right font-semibold">{i + 1}</span>
                <span className={`min-w-0 grow ${stand.stand === "open" ? "" : "text-muted"}`}>
                  {say(s.words, print)}
                  {stand.stand === "done" && " · done"}
                  {stand.stand === "skipped" && ` · skipped: ${stand.reason}`}
                </span>
                {stand.litres != null ? (
                  <span className="shrink-0 font-semibold">
                    {print(stand.litres, "volume")}
                    {s.outL != null && <span className="font-normal text-muted"> of {print(s.outL, "volume")}</span>}
                  </span>
                ) : (
                  s.outL != null && s.outL >= 0.0005 && <span className="shrink-0 font-semibold">{print(s.outL, "volume")}</span>
                )}
              </button>
            </li>
          );
        })}
      </ol>
    </Panel>
  );
}
