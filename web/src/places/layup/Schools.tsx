import { useState } from "react";
import { plural, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { useJob } from "../bench/useAsked";

/** What each school costs in this rig, and what stays at risk: asked when it is looked at. */
export function Schools() {
  const [shown, setShown] = useState(false);
  return (
    <Panel className="p-3" aria-label="Schools">
      <details open={shown} onToggle={(e) => setShown(e.currentTarget.open)}>
        <summary className="h-10 cursor-pointer content-center font-semibold">Compare drain, air, antifreeze and heat</summary>
        {shown && <Compared />}
      </details>
    </Panel>
  );
}

function Compared() {
  const schools = useJob("schools").data;
  const print = usePrint();
  if (!schools) return <p className="text-muted">Trying each on your coldest night…</p>;
  return (
    <>
      <p className="text-muted">On your coldest night, {print(schools.outdoorC, "temperature")}. Estimates.</p>
      <ul>
        {schools.schools.map((s) => (
          <li key={s.school} className="border-t border-rule py-2" data-school={s.school} data-breaks={s.breaks}>
            <div className="flex gap-2">
              <strong className="grow font-semibold">{s.name}</strong>
              <span>{s.breaks === 0 ? "nothing breaks" : `${plural(s.breaks, "piece")} at risk`}</span>
            </div>
            <p className="text-muted">{s.goodFor}</p>
            <p>
              {s.longestS > 0 ? `${print(s.shortestS, "duration")} to ${print(s.longestS, "duration")} of work` : "No work"}
              {s.fluidL > 0 && `, ${print(s.fluidL, "volume")} of antifreeze`}
              {s.money != null && ` for ${s.money.toFixed(2)} at your price`}, {print(s.staysL, "volume")} of water left
              {s.first && `; first: ${s.first}`}.
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}
