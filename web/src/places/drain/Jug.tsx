import { say, usePrint } from "../../app/units";
import { Button } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { useAsked } from "../bench/useAsked";

/** What a hand pours on at a time, L. */
const POURS = [0.1, 0.5, 1];

/** What a jug took under an opening, typed or tapped, and what that tells. */
export function Jug(props: { partId: string; measured: number | null; onMeasure(litres: number): void }) {
  const { partId, measured, onMeasure } = props;
  const print = usePrint();
  return (
    <>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <div className="w-36">
          <QuantityField label="Measured volume" value={measured} quantity="volume" limit="left.outL" onCommit={onMeasure} />
        </div>
        {POURS.map((litres) => (
          <Button
            key={litres}
            aria-label={`Add ${print(litres, "volume")}`}
            onClick={() => onMeasure(Math.round(((measured ?? 0) + litres) * 1000) / 1000)}
          >
            + {print(litres, "volume")}
          </Button>
        ))}
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
              </span>{" "}
              {say(s.try, print)}.
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
