import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { stayWords } from "../../drawing/stays";
import { Panel, Tick } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useAnswers } from "../bench/benchStores";
import { Jug } from "./Jug";
import { LeftState } from "./LeftState";
import { useLeft } from "./useLeft";

/** The order of draining: what comes out at each step, why it comes there, what stays if it is forgotten, and what a jug tells. */
export function OrderList({ rig, count, onCount }: { rig: Rig; count: number; onCount(count: number): void }) {
  const order = useAnswers((s) => s.answers?.drainOrder);
  const left = useLeft(rig);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!order) return <p className="p-3 text-muted">Calculating…</p>;
  const minutes = (seconds: number) => print(seconds, "duration");
  const nameOf = (id: string) => rig.parts.find((p) => p.id === id)?.name ?? id;
  const stays = stayWords(order.stays, print);
  const worst = order.forgets[0];
  const forgotten = (id: string) => order.forgets.find((f) => f.partId === id);
  return (
    <Stale stale={stale} className="flex min-w-0 flex-col gap-3">
      <Panel className="p-3" aria-label="Draining steps">
        <h2 className="text-[17px] font-semibold">Draining steps</h2>
        <p className="text-muted">
          {order.steps.length} steps, {minutes(order.shortestS)} to {minutes(order.longestS)}, {print(order.walkM, "length")} of walking.{" "}
          <strong className="font-semibold text-ink">{stays.sum}</strong>
          {stays.where && `: ${stays.where}`}. Times are estimates.
        </p>
        {worst && (
          <p className="mt-1">
            Never forget <strong className="font-semibold">{nameOf(worst.partId)}</strong>: without it {print(worst.moreL, "volume")} more
            stays
            {worst.where && `, most of it in ${worst.where}`}.
          </p>
        )}
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
                    <span className="flex gap-2">
                      <span className="min-w-0 grow font-medium">{say(s.words, print)}</span>
                      <span className="shrink-0 font-semibold">{s.outL >= 0.0005 ? print(s.outL, "volume") : "nothing"}</span>
                    </span>
                    <span className="block text-muted">{about(s, minutes)}</span>
                  </span>
                </button>
              </div>
              {count === i + 1 && (
                <div className="px-3 pb-3 pl-9">
                  <p className="text-muted">{s.why}</p>
                  {s.kind !== "taps" && <Forgotten more={forgotten(s.id)} />}
                  {s.kind === "taps" ? (
                    <ul className="mt-1" aria-label="Taps">
                      {s.partIds.map((id) => (
                        <li key={id} className="flex items-center gap-2">
                          <Tick
                            label={`Done: open ${nameOf(id)}`}
                            on={left.isDone(id)}
                            onChange={(on) => left.tick(nameOf(id), [id], on)}
                          />
                          <span className="min-w-0 grow">{nameOf(id)}</span>
                          {forgotten(id) && <span className="text-muted">shut: {print(forgotten(id)?.moreL, "volume")} more stays</span>}
                        </li>
                      ))}
                    </ul>
                  ) : (
                    <Jug partId={s.id} measured={left.jugOf(s.id)} onMeasure={(litres) => left.measure(s.id, litres)} />
                  )}
                </div>
              )}
            </li>
          ))}
        </ol>
      </Panel>
    </Stale>
  );
}

/** What stays when a step is left out. */
function Forgotten({ more }: { more: Schema["Forgotten"] | undefined }) {
  const print = usePrint();
  if (!more) return <p className="mt-1 text-muted">If you forget it, no more water stays.</p>;
  return (
    <p className="mt-1">
      If you forget it, <strong className="font-semibold">{print(more.moreL, "volume")}</strong> more stays
      {more.where && `, most of it in ${more.where}`}.
    </p>
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
          : minutes(low) === minutes(high)
            ? `runs about ${minutes(high)}`
            : `runs ${minutes(low)} to ${minutes(high)}`;
  return [time, s.kind !== "taps" ? s.reach : null, s.needed ? null : "nothing left after the others"].filter(Boolean).join(" · ");
}
