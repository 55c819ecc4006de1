import { useState } from "react";
import type { Schema } from "../../api/client";
import { say, useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Button, Choice, Panel } from "../../ui/controls";
import { Working } from "../../ui/Working";
import { useAnswers, useDocument, useStores } from "../bench/benchStores";
import { PricesButton } from "../bench/PricesButton";
import { useJob } from "../bench/useAsked";
import { useLook } from "../bench/useLook";
import { usePlan } from "./usePlan";

type By = "hoursWon" | "hoursPerMm" | "hoursPerL" | "hoursPerMoney";
const SHOWN = 4;
const orders: Record<By, string> = { hoursWon: "Hours", hoursPerMm: "per mm", hoursPerL: "per litre", hoursPerMoney: "per money" };

/** Sleeves, jackets, linings, louvres: each tried on the night, and the best of them together. */
export function Insulation({ rig }: { rig: Rig }) {
  const { document } = useStores();
  const plan = usePlan(rig);
  const asked = useJob("insulation");
  const { data } = asked;
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const startHour = useAnswers((s) => s.conditions?.startHour ?? 22);
  const [by, setBy] = useState<By>("hoursWon");
  const { shows } = useLook();
  const print = usePrint();
  const clock = useClock();
  const priced = data?.options.some((o) => o.hoursPerMoney != null);
  const at = (s: number | null | undefined) => (s == null ? "no ice" : clock(startHour, s));
  const rows = [...(data?.options ?? [])].filter((o) => o[by] != null).sort((a, b) => (b[by] ?? 0) - (a[by] ?? 0));
  return (
    <Panel className="p-3" aria-label="Insulation">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="grow text-[17px] font-semibold">Insulation</h2>
        <PricesButton />
        {rows.length > 0 && (
          <Choice<By>
            label="Sort by"
            value={by}
            onChange={setBy}
            options={(Object.keys(orders) as By[])
              .filter((o) => o !== "hoursPerMoney" || priced)
              .map((value) => ({ value, text: orders[value] }))}
          />
        )}
      </div>
      {!data ? (
        <Working words="Trying each…" asked={asked} />
      ) : data.options.length === 0 ? (
        <p className="text-muted">
          Nothing tried delays ice by 15 minutes or more in {print(data.endS, "duration")}
          {data.firstBreakS == null ? ": nothing breaks." : "."}
        </p>
      ) : (
        <>
          <Best data={data} previewing={previewing} at={at} />
          <table className="mt-2 w-full">
            <thead className="text-muted">
              <tr>
                <th className="text-left font-normal">Each alone</th>
                <th className="pl-2 text-right font-normal">first ice</th>
                <th className="pl-2 text-right font-normal">later by</th>
                {by !== "hoursWon" && <th className="pl-2 text-right font-normal">{orders[by]}</th>}
                <th />
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, SHOWN).map((o) => (
                <tr
                  key={say(o.words, print)}
                  className="border-t border-rule"
                  data-option
                  {...shows({ id: say(o.words, print), effect: o.effect })}
                >
                  <td className="py-1">
                    {say(o.words, print)}
                    <span className="block text-muted">for {o.for}</span>
                  </td>
                  <td className="py-1 pl-2 text-right whitespace-nowrap">
                    {at(o.beforeS)} → {at(o.afterS)}
                  </td>
                  <td className="py-1 pl-2 text-right font-semibold whitespace-nowrap">{print(o.hoursWon * 3600, "duration")}</td>
                  {by !== "hoursWon" && (
                    <td className="py-1 pl-2 text-right font-semibold whitespace-nowrap">{print((o[by] ?? 0) * 3600, "duration")}</td>
                  )}
                  <td className="py-1 pl-2 text-right whitespace-nowrap">
                    <Button
                      aria-label={`${o.event ? "Add to plan" : "Apply"}: ${say(o.words, print)}`}
                      disabled={previewing}
                      onClick={() => (o.event ? plan.add(o.event) : document.commit(say(o.words, print), o.edits))}
                    >
                      {o.event ? "Add to plan" : "Apply"}
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > SHOWN && <p className="text-muted">and {rows.length - SHOWN} more with less effect.</p>}
        </>
      )}
      {data && (
        <ul className="mt-2 flex list-disc flex-col gap-1 pl-4 text-muted">
          {data.notes.map((n) => (
            <li key={n.text}>{say(n, print)}</li>
          ))}
        </ul>
      )}
    </Panel>
  );
}

function Best({
  data,
  previewing,
  at,
}: {
  data: Schema["InsulationAnswer"];
  previewing: boolean;
  at(s: number | null | undefined): string;
}) {
  const { document } = useStores();
  const { shows } = useLook();
  const print = usePrint();
  if (data.best.length === 0) return null;
  return (
    <section aria-label="The best in order" className="mt-1">
      <p>
        <span className="text-muted">Ice first breaks </span>
        <strong className="font-semibold">{data.first}</strong>, {at(data.firstBreakS)}.
      </p>
      <p className="mt-1 flex justify-between gap-3 text-muted">
        <span>Best steps, in this order</span>
        <span>first damage then</span>
      </p>
      <ol>
        {data.best.map((b, i) => (
          <li key={`${i}${b.words.text}`} className="flex items-baseline justify-between gap-3 border-t border-rule py-1">
            <span>
              {i + 1}. {say(b.words, print)}
            </span>
            <span className="shrink-0 text-right">
              <strong className="font-semibold">{at(b.firstBreakS)}</strong>
              {b.first && b.first !== data.first && <span className="block text-muted">then {b.first}</span>}
            </span>
          </li>
        ))}
      </ol>
      <Button
        className="mt-1"
        disabled={previewing}
        {...shows({ id: "best", effect: data.bestEffect })}
        onClick={() =>
          document.commit(
            data.best.length === 1 ? "The best against the cold" : `The best ${data.best.length} against the cold`,
            data.bestEdits,
          )
        }
      >
        {data.best.length === 1 ? "Apply" : `Apply all ${data.best.length}`}
      </Button>
    </section>
  );
}
