import { TriangleAlert } from "lucide-react";
import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import { stayWords } from "../../drawing/stays";
import { Panel } from "../../ui/controls";
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

/** Everything that holds water once the rig is drained, and the one thing that empties it. */
export function Holds() {
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
        <Stale as="table" stale={stale} className="mt-1 w-full">
          <tbody>
            {told.holds.slice(0, 24).map((h) => (
              <tr key={`${h.kind} ${h.words}`} className="border-t border-rule align-top" data-hold={h.kind}>
                <td className="py-1.5 pr-3">
                  {h.breaks && <TriangleAlert size={15} className="mr-1 inline align-[-2px]" aria-label="Ice breaks something here" />}
                  {h.words} <span className="text-muted">{why[h.kind]}</span>
                </td>
                <td className="py-1.5 pr-3 text-right font-semibold whitespace-nowrap">
                  {h.estimate ? "≈ " : ""}
                  {print(h.litres, "volume")}
                </td>
                <td className="py-1.5 text-muted">{say(h.empties, print)}</td>
              </tr>
            ))}
          </tbody>
        </Stale>
      )}
      {told.holds.length > 24 && <p className="text-muted">and {told.holds.length - 24} more with less.</p>}
    </Panel>
  );
}
