import { plural, usePrint } from "../../app/units";
import { notDoneWords, stateWord, whenWords } from "../../drawing/left";
import { Button } from "../../ui/controls";
import { useAnswers, useStores } from "../bench/benchStores";
import type { useLeft } from "./useLeft";

/** How the water system stands by what was ticked and measured. */
export function LeftState({ left }: { left: ReturnType<typeof useLeft> }) {
  const state = useAnswers((s) => s.answers?.left);
  const water = useAnswers((s) => s.conditions?.water);
  const { setConditions } = useStores().answers;
  const print = usePrint();
  if (!left.known)
    return <p className="mt-2 rounded-md bg-sunk px-2.5 py-2">Tick each step as you do it. The rig remembers what is left, and when.</p>;
  if (!state) return null;
  const short = state.readings.filter((r) => r.isShort);
  return (
    <section className="mt-2 rounded-md bg-sunk px-2.5 py-2" aria-label="State">
      <p>
        <strong className="font-semibold">{state.at ? stateWord(state, print) : "Full"}</strong>
        <span className="text-muted">
          {state.at ? ` · last step ${whenWords(state.at)}` : state.filled ? ` · filled ${whenWords(state.filled)}` : ""}
        </span>
      </p>
      {state.at && <p>{[`${print(state.staysL, "volume")} in it`, notDoneWords(state)].filter(Boolean).join(" · ")}</p>}
      {short.length > 0 && <p>Less came out than expected at {plural(short.length, "step")}: what that empties counts as still full.</p>}
      <div className="mt-1 flex flex-wrap gap-2">
        {state.at && <Button onClick={left.fill}>Mark as filled</Button>}
        {water !== "asLeft" && <Button onClick={() => setConditions({ water: "asLeft" })}>Use this state for the night</Button>}
      </div>
    </section>
  );
}
