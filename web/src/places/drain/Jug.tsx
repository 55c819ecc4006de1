import { say, usePrint } from "../../app/units";
import { QuantityField } from "../../ui/QuantityField";
import { useAsked } from "../bench/useAsked";
import type { useLeft } from "./useLeft";

/** What a jug took under an opening, and what that tells. */
export function Jug({ left, partId }: { left: ReturnType<typeof useLeft>; partId: string }) {
  const measured = left.jugOf(partId);
  return (
    <>
      <div className="mt-2 max-w-44">
        <QuantityField
          label="Measured volume"
          value={measured}
          quantity="volume"
          limit="left.outL"
          onCommit={(litres) => left.measure(partId, litres)}
        />
      </div>
      {measured !== null && <Proof step={partId} litres={measured} />}
    </>
  );
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
