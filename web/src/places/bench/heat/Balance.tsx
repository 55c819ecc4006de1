import { useState } from "react";
import { say, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { QuantityField } from "../../../ui/QuantityField";
import { Stale } from "../../../ui/Stale";
import { useDocument } from "../benchStores";
import { useAsked, useLast } from "../useAsked";

/** How far the balancing valve of each branch is open, so that the flow is shared as wished. */
export function Balance({ rig }: { rig: Rig }) {
  const id = useDocument((s) => s.id);
  const [wishes, setWishes] = useState<Record<string, number>>({});
  const { parts } = indexOf(rig);
  const known = Object.entries(wishes).filter(([part]) => parts.has(part));
  const asked = useAsked("balance", { wishes: known.map(([part, share]) => ({ id: part, share })) });
  const answer = useLast(id, asked.data);
  const print = usePrint();
  if (!answer || (answer.branches.length === 0 && !answer.words)) return null;
  return (
    <details className="mt-3" data-balance={answer.branches.length}>
      <summary className="min-h-10 cursor-pointer content-center font-medium">Share the flow among the branches</summary>
      <Stale stale={!asked.data}>
        {answer.words && <p>{say(answer.words, print)}</p>}
        <ul>
          {answer.branches.map((b) => (
            <li key={b.partId} className="flex items-end gap-2 border-b border-rule py-1" data-branch={b.partId}>
              <span className="min-w-0 grow">
                {parts.get(b.partId)?.name}
                <span className="block text-muted">
                  {print(b.nowLPerMin, "flow")} now, {print(b.lPerMin, "flow")} with its valve {Math.round(b.opening * 100)} % open
                </span>
              </span>
              <div className="w-20 shrink-0">
                <QuantityField
                  key={b.partId}
                  label="Parts"
                  quantity="number"
                  value={b.wish}
                  least={0.01}
                  most={1000}
                  onCommit={(share) => setWishes({ ...wishes, [b.partId]: share })}
                />
              </div>
            </li>
          ))}
        </ul>
        <p className="mt-1 text-muted">An estimate. Set the valves by a thermometer on each return.</p>
      </Stale>
    </details>
  );
}
