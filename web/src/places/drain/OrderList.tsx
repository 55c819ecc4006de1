import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { notDoneWords, stateWord, whenWords } from "../../drawing/left";
import { stayWords } from "../../drawing/stays";
import { Button, Panel, Tick } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";
import { useLeft } from "./useLeft";

/** The order of draining, what comes out at each step, and what a jug tells. */
export function OrderList({ rig, count, onCount }: { rig: Rig; count: number; onCount(count: number): void }) {
  const order = useAnswers((s) => s.answers?.drainOrder);
  const left = useLeft(rig);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!order) return <p className="p-3 text-muted">Calculating…</p>;
  const minutes = (seconds: number) => print(seconds, "duration");
  const nameOf = (id: string) => rig.parts.find((p) => p.id === id)?.name ?? id;
  const stays = stayWords(order.stays, print);
  return (
    <Stale stale={stale} className="flex min-w-0 flex-col gap-3">
      <Panel className="p-3" aria-label="Draining steps">
        <h2 className="text-[17px] font-semibold">Draining steps</h2>
        <p className="text-muted">
          {order.steps.length} steps, {minutes(order.shortestS)} to {minutes(order.longestS)}, {print(order.walkM, "length")} of walking.{" "}
          <strong className="font-semibold text-ink">{stays.sum}</strong>
          {stays.where && `: ${stays.where}`}. Times are estimates.
        </p>
        <LeftState left={left} />
        <ol className="mt-2 flex flex-col gap-1">
          {order.steps.map((s, i) => (
            <li key={s.id} className={`rounded-md ${count === i + 1 ? "bg-sunk shadow-[inset_0_0_0_1.5px_var(--ink)]" : ""}`}>
              <div className="flex items-start">
                <Tick
                  label={`Done: ${say(s.words, print)}`}
                  on={s.partIds.every(left.isDone)}
                  some={s.partIds.some(left.isDone)}
                  onChange={(on) => left.tick(say(s.words, print), s.partIds, on)}
                />
                <button
                  type="button"
                  className="flex min-h-11 min-w-0 grow items-start gap-2 py-2 pr-1.5 text-left"
                  aria-pressed={count === i + 1}
                  onClick={() => onCount(i + 1)}
                >
                  <span className="w-5 shrink-0 text-right font-semibold">{i + 1}</span>
                  <span className="min-w-0 grow">
                    <span className="block font-medium">{say(s.words, print)}</span>
                    <span className="block text-muted">{about(s, minutes)}</span>
                  </span>
                  <span className="shrink-0 text-right font-semibold">{s.outL >= 0.0005 ? print(s.outL, "volume") : "nothing"}</span>
                </button>
              </div>
              {count === i + 1 && (
                <div className="px-3 pb-3 pl-9">
                  <p className="text-muted">{s.why}</p>
                  {s.kind === "taps" ? (
                    <ul className="mt-1" aria-label="Taps">
                      {s.partIds.map((id) => (
                        <li key={id} className="flex items-center gap-2">
                          <Tick
                            label={`Done: open ${nameOf(id)}`}
                            on={left.isDone(id)}
                            onChange={(on) => left.tick(nameOf(id), [id], on)}
                          />
                          {nameOf(id)}
                        </li>
                      ))}
                    </ul>
                  ) : (
                    <>
                      <div className="mt-2 max-w-44">
                        <QuantityField
                          label="Measured volume"
                          value={left.jugOf(s.id)}
                          quantity="volume"
                          limit="left.outL"
                          onCommit={(litres) => left.measure(s.id, litres)}
                        />
                      </div>
                      {left.jugOf(s.id) !== null && <Proof step={s.id} litres={left.jugOf(s.id) ?? 0} />}
                    </>
                  )}
                </div>
              )}
            </li>
          ))}
        </ol>
      </Panel>
      {order.forgets.length > 0 && (
        <Panel className="p-3" aria-label="Forgotten steps">
          <h2 className="text-[17px] font-semibold">Forgotten steps</h2>
          <table className="mt-1 w-full table-fixed">
            <thead className="text-left text-muted">
              <tr>
                <th className="w-[46%] font-normal">What</th>
                <th className="w-[20%] text-right font-normal">more left</th>
                <th className="pl-3 font-normal">mostly in</th>
              </tr>
            </thead>
            <tbody>
              {order.forgets.slice(0, 10).map((f) => (
                <tr key={`${f.partId} ${f.words}`} className="border-t border-rule align-top">
                  <td className="py-1.5 pr-2">{f.words}</td>
                  <td className="py-1.5 text-right font-semibold">{print(f.moreL, "volume")}</td>
                  <td className="py-1.5 pl-3">{f.where ?? "many places"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Panel>
      )}
      {order.air.length > 0 && (
        <Panel className="p-3" aria-label="Air in">
          <h2 className="text-[17px] font-semibold">Airlocks</h2>
          <p className="text-muted">
            Water stays in a line that is closed above, as in a straw. Narrow lines keep it, and it is counted in what stays; wide ones gulp
            empty. Estimates, on the side of more water.
          </p>
          <ul className="mt-1">
            {order.air.slice(0, 8).map((h) => (
              <li key={h.words + h.openAt.words} className="flex gap-3 border-t border-rule py-1.5">
                <span className="min-w-0 grow">
                  {h.words}:{" "}
                  <span className="text-muted">
                    air would get in at {h.openAt.words}
                    {h.gulps ? "; it empties in gulps" : ""}
                  </span>
                </span>
                <span className="shrink-0 font-semibold">{print(h.litres, "volume")}</span>
              </li>
            ))}
          </ul>
        </Panel>
      )}
    </Stale>
  );
}

/** How the water system stands by what was ticked and measured. */
function LeftState({ left }: { left: ReturnType<typeof useLeft> }) {
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
      {short.length > 0 && (
        <p>
          {short.length === 1 ? "A jug took" : `${short.length} jugs took`} less than should come: what those steps empty counts as still
          full.
        </p>
      )}
      <div className="mt-1 flex flex-wrap gap-2">
        {state.at && <Button onClick={left.fill}>Mark as filled</Button>}
        {water !== "asLeft" && <Button onClick={() => setConditions({ water: "asLeft" })}>Use this state for the night</Button>}
      </div>
    </section>
  );
}

function about(s: Schema["DrainStep"], minutes: (seconds: number) => string) {
  const [low, high] = [s.shortestS ?? 0, s.longestS ?? 0];
  const time =
    high === 0
      ? null
      : high < 60
        ? "runs under a minute"
        : low < 60
          ? `runs up to ${minutes(high)}`
          : `runs ${minutes(low)} to ${minutes(high)}`;
  return [time, s.kind !== "taps" ? s.reach : null, s.needed ? null : "nothing left after the others"].filter(Boolean).join(" · ");
}

/** What a jug that is not as full as it should be may point at. */
function Proof({ step, litres }: { step: string; litres: number }) {
  const print = usePrint();
  const { data } = useAsked("proof", { stepId: step, measuredL: litres });
  if (!data) return <p className="mt-2 text-muted">Calculating…</p>;
  return (
    <div className="mt-2" data-proof={step}>
      <p>{say(data.verdict, print)}</p>
      {data.suspects.length > 0 && (
        <ol className="mt-1.5 flex flex-col gap-1">
          {data.suspects.map((s) => (
            <li key={s.partId + say(s.words, print)}>
              {say(s.words, print)}:{" "}
              <span className="text-muted">
                {print(s.wouldBeL, "volume")} would have come, and {print(Math.max(0, s.staysMoreL), "volume")} more left.
              </span>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
