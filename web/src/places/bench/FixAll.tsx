import { useState } from "react";
import { plural, say, usePrint } from "../../app/units";
import { Button, Choice } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { QuantityField } from "../../ui/QuantityField";
import { Working } from "../../ui/Working";
import { useStores } from "./benchStores";
import { costWords, winWords } from "./Fixes";
import { PricesButton } from "./PricesButton";
import { useJob } from "./useAsked";

/** A set of fixes for the whole rig: what each does in its turn, what it costs, and what cannot be mended and why. */
export function FixAll({ onClose }: { onClose(): void }) {
  const { document } = useStores();
  const print = usePrint();
  const [budget, setBudget] = useState<"any" | "parts" | "money">("any");
  const [most, setMost] = useState({ parts: 0, money: 50 });
  const asked = useJob(
    "fixAll",
    budget === "parts" ? { mostParts: most.parts } : budget === "money" ? { mostMoney: most.money } : undefined,
  );
  const { data } = asked;
  const apply = () => {
    if (data)
      document.commit(
        `Fix all: ${data.fixes.length} fixes`,
        data.fixes.flatMap((f) => f.edits),
      );
    onClose();
  };
  return (
    <Dialog
      open
      title="Fix all"
      onClose={onClose}
      text={
        <div className="flex max-h-[60vh] flex-col gap-3 overflow-y-auto" aria-busy={!data}>
          <div className="flex flex-wrap items-end gap-3">
            <Choice<"any" | "parts" | "money">
              label="Allowed"
              value={budget}
              onChange={setBudget}
              options={[
                { value: "any", text: "Anything" },
                { value: "parts", text: "New parts" },
                { value: "money", text: "Money" },
              ]}
            />
            {budget !== "any" && (
              <QuantityField
                key={budget}
                label={budget === "parts" ? "At most" : "At most, at your prices"}
                value={most[budget]}
                quantity="number"
                least={0}
                most={budget === "parts" ? 999 : 1_000_000}
                onCommit={(value) => setMost({ ...most, [budget]: value })}
              />
            )}
            {budget === "money" && <PricesButton />}
          </div>
          {!data && <Working words="Trying fixes on the whole rig, one by one and together…" asked={asked} />}
          {data && (
            <>
              <p>
                <strong className="text-[17px]">
                  {print(data.beforeL, "volume")} → {print(data.afterL, "volume")}
                </strong>{" "}
                <span className="text-muted">
                  left after draining, with {plural(data.fixes.length, "fix", "fixes")}; {plural(data.tried, "trial")}.
                </span>
              </p>
              {data.wins && (data.wins.worse.length > 0 || data.wins.made.length > 0) && (
                <p>{winWords({ ...data.wins, litres: 0, hoursWon: 0, gone: [] }, print).join("; ")}</p>
              )}
              <ol className="flex list-decimal flex-col gap-2 pl-6">
                {data.fixes.map((f) => (
                  <li key={`${f.finding} ${say(f.words, print)}`}>
                    <span className="font-medium">{say(f.words, print)}</span>
                    <span className="block text-muted">
                      For {f.finding}:{" "}
                      {f.litres > 0.0005 ? `${print(f.litres, "volume")} less water left` : `fixes ${plural(f.gone.length, "issue")}`};{" "}
                      {costWords(f.costs, print)}.
                    </span>
                  </li>
                ))}
              </ol>
              {data.left.length > 0 && (
                <div>
                  <h3 className="font-medium">No one-click fix</h3>
                  <ul className="mt-1 flex flex-col gap-1.5">
                    {data.left.map((l) => (
                      <li key={l.findingId}>
                        {l.title}: <span className="text-muted">{l.why}</span>
                      </li>
                    ))}
                  </ul>
                </div>
              )}
            </>
          )}
        </div>
      }
    >
      <Button onClick={onClose}>Cancel</Button>
      <Button onClick={apply} disabled={!data || data.fixes.length === 0}>
        {data && data.fixes.length > 0 ? `Apply all ${data.fixes.length}` : "Nothing to apply"}
      </Button>
    </Dialog>
  );
}
