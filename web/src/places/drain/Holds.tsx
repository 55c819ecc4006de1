import { TriangleAlert } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { plural, say, usePrint } from "../../app/units";
import { stayWords } from "../../drawing/stays";
import { Panel, ShowAll } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useAnswers } from "../bench/benchStores";

const why: Record<Schema["HoldKind"], string> = {
  pool: "below a high point",
  deadLeg: "a dead leg",
  vessel: "below its way out",
  design: "by design",
  shut: "shut in",
  sag: "between clips",
  airlock: "airlocked",
  film: "film",
  protected: "safe in antifreeze",
  rest: "each too little to name",
};

/** The most; the rest is asked for. */
const SHOWN = 6;

/** Everything that holds water once the rig is drained, and the one thing that empties it. */
export function Holds() {
  const [all, setAll] = useState(false);
  const told = useAnswers((s) => s.answers?.holds);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!told) return <p className="p-3 text-muted">Calculating…</p>;
  const stays = stayWords(told.stays, print);
  return (
    <Panel className="p-3" aria-label="Water left">
      <h2 className="text-[17px] font-semibold">Water left</h2>
      <p className="text-muted">
        <strong className="font-semibold text-ink" data-stays>
          {stays.sum}
        </strong>
        {stays.where && `: ${stays.where}`}
        {stays.apart && `; ${stays.apart}`}. Airlocks, film and sags are estimates.
      </p>
      {told.holds.length === 0 ? (
        <p className="mt-1">Nothing.</p>
      ) : (
        <Stale as="ul" stale={stale} className="mt-1 w-full">
          {told.holds.slice(0, all ? undefined : SHOWN).map((h) => (
            <li key={`${h.kind} ${h.words}`} className="border-t border-rule py-1.5" data-hold={h.kind}>
              <p className="flex items-baseline gap-2">
                {h.breaks && <TriangleAlert size={15} className="shrink-0 self-center" aria-label="Ice breaks something here" />}
                <span className="min-w-0 grow">
                  {h.words} <span className="text-muted">{why[h.kind]}</span>
                </span>
                <strong className="font-semibold whitespace-nowrap">
                  {h.estimate ? "≈ " : ""}
                  {print(h.litres, "volume")}
                </strong>
              </p>
              <p className="text-muted">{say(h.empties, print)}</p>
            </li>
          ))}
        </Stale>
      )}
      {told.holds.length > SHOWN && <ShowAll all={all} count={plural(told.holds.length, "place")} onChange={setAll} />}
    </Panel>
  );
}
