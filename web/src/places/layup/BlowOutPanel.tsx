import { useEffect, useState } from "react";
import type { Schema } from "../../api/client";
import { lasting, plural, say, usePrint } from "../../app/units";
import { indexOf, type Rig } from "../../document/geometry";
import { carryWords } from "../../drawing/AirMarks";
import { Button, Caution, Choice, Panel, Switch } from "../../ui/controls";
import { fieldClass, QuantityField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useActions } from "../bench/useActions";
import { useJob } from "../bench/useAsked";
import { Compressor } from "./Compressor";
import { useLayUp } from "./layUpStore";
import { rowClass } from "./rowClass";
import type { Shown } from "./StepDrawing";
import { useAir } from "./useAir";

type Air = Schema["BlowOutAnswer"];

/** What the air of each outlet sweeps, how well, and what is left. */
export function BlowOutPanel({ rig, onShow }: { rig: Rig; onShow(shown: Shown): void }) {
  const lay = useLayUp();
  const { air, stale, error } = useAir(true);
  const [chosen, setChosen] = useState<string | null>(null);
  const step = air?.steps.find((s) => s.id === chosen);
  useEffect(() => {
    if (!air) return;
    const partIds = step ? [step.partId] : air.gear.map((g) => g.partId);
    onShow({
      partIds,
      number: step ? air.steps.indexOf(step) + 1 : null,
      title: step ? `Air to ${step.name}` : "What the air does, all outlets",
      air,
      stepId: step?.id ?? null,
    });
  }, [air, step, onShow]);
  if (error) return <p role="alert">Couldn't calculate the air. {error.message}</p>;
  if (!air) return <p className="text-muted">Calculating where the air goes…</p>;
  return (
    <Stale stale={stale} className="flex min-w-0 flex-col gap-3">
      <Panel className="p-3" aria-label="Air">
        <label className="block">
          <span className="text-muted">Air from</span>
          <select
            className={`${fieldClass} w-full border-rule`}
            value={lay.source}
            onChange={(e) => lay.set({ source: e.target.value as Schema["AirSource"], freeLPerMin: null, tankL: null })}
          >
            {air.does.map((s) => (
              <option key={s.source} value={s.source}>
                {s.name}: clears {s.outlets} of {plural(s.of, "outlet")}
              </option>
            ))}
          </select>
        </label>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <QuantityField
            label="Air it gives"
            value={air.supply.freeLPerMin}
            quantity="flow"
            limit="layUp.freeLPerMin"
            onCommit={(freeLPerMin) => lay.set({ freeLPerMin })}
          />
          <QuantityField
            label="Its tank"
            value={air.supply.tankL}
            quantity="volume"
            limit="layUp.tankL"
            onCommit={(tankL) => lay.set({ tankL })}
          />
        </div>
        <div className="mt-2 flex items-center justify-between gap-2">
          <span>Rounds</span>
          <Choice
            label="Rounds"
            value={String(lay.rounds)}
            options={["1", "2", "3"].map((n) => ({ value: n, text: n }))}
            onChange={(n) => lay.set({ rounds: Number(n) })}
          />
        </div>
        <div className="mt-2 flex items-center justify-between gap-2">
          <span>Drained first</span>
          <Switch label="Drained first" on={lay.drained} onChange={(drained) => lay.set({ drained })} />
        </div>
        <AirSums air={air} rig={rig} />
        <div className="mt-2">
          <Caution>
            Compressed air: set the regulator first, wear eye protection, open a tap before the air is on, and never go above the limit.
          </Caution>
        </div>
      </Panel>
      <Port />
      <Panel className="p-3" aria-label="Outlets">
        <div className="flex items-center gap-2">
          <h2 className="grow font-semibold">Outlets, in order</h2>
          <Button quiet aria-pressed={step === undefined} onClick={() => setChosen(null)}>
            Show all
          </Button>
        </div>
        <Outlets air={air} chosen={chosen} onChoose={setChosen} />
      </Panel>
      <Compressor air={air} outlet={step} />
    </Stale>
  );
}

function AirSums({ air, rig }: { air: Air; rig: Rig }) {
  const print = usePrint();
  const { parts } = indexOf(rig);
  const after = air.afterL.at(-1) ?? air.beforeL;
  return (
    <div className="mt-2" data-air-left={after.toFixed(4)}>
      {air.gear.length === 0 ? (
        <p className="font-medium">There is nowhere to join an air hose.</p>
      ) : (
        <p>
          Joined to {air.gear.map((g) => parts.get(g.partId)?.name ?? g.partId).join(", ")}, at {print(air.lineBar * 1e5, "pressure")}.
          Limit <strong className="font-semibold">{print(air.limitBar * 1e5, "pressure")}</strong>: {say(air.limitBy, print)}.
        </p>
      )}
      {!air.can && air.gear.length > 0 && (
        <p className="font-medium">Not every outlet gets air, or some of it escapes: look at the valves.</p>
      )}
      <p className="mt-1">
        Lines: {print(air.beforeL, "volume")} before, <strong className="font-semibold">{print(after, "volume")} left</strong>
        {air.deadL > 0.0005 && `, ${print(air.deadL, "volume")} of it in dead legs`}.
        {air.partsL > 0.0005 && ` Parts keep ${print(air.partsL, "volume")}.`}
      </p>
      <p className="text-muted">
        {print(air.shortestS, "duration")} to {print(air.longestS, "duration")}, {print(air.airL, "volume")} of air. Estimates.
      </p>
    </div>
  );
}

/** Where a port would do better, tried on the whole rig. */
function Port() {
  const port = useJob("airPort").data;
  const print = usePrint();
  const { commit } = useActions();
  if (!port || port.places.length === 0) return null;
  return (
    <Panel className="p-3" aria-label="Blow-out port">
      <h2 className="font-semibold">Place a blow-out port</h2>
      <ul>
        {port.places.map((p) => (
          <li key={p.runId} className="flex items-center gap-2 border-b border-rule py-1.5" data-port-place={p.runId}>
            <span className="min-w-0 grow">
              {say(p.words, print)}
              <span className="block text-muted">
                air to {p.reached} of {port.outlets} outlets, {print(p.leftL, "volume")} left
              </span>
            </span>
            <Button onClick={() => commit(say(p.words, print), p.edits)}>Place</Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function Outlets({ air, chosen, onChoose }: { air: Air; chosen: string | null; onChoose(id: string): void }) {
  const print = usePrint();
  if (air.steps.length === 0) return <p className="text-muted">No tap is drawn yet.</p>;
  return (
    <ol className="mt-1">
      {air.steps.map((s, i) => (
        <li key={s.id} data-outlet-air={s.id} data-carries={s.runIds.length > 0 ? s.carries : "none"}>
          <button type="button" className={rowClass} aria-pressed={s.id === chosen} onClick={() => onChoose(s.id)}>
            <span className="w-6 shrink-0 text-right font-semibold">{i + 1}</span>
            <span className="min-w-0 grow">
              {s.name}
              <span className="block text-muted">
                {s.runIds.length === 0
                  ? "no air gets there"
                  : `${carryWords[s.carries]}; ${lasting(s.shortestS, print)} to ${lasting(s.longestS, print)}`}
                {s.carries !== "all" && s.needsLPerMin > s.freeLPerMin && `; needs ${print(s.needsLPerMin, "flow")} of air`}
                {s.recoversS != null && s.recoversS > 1 && `; then let the tank fill for ${lasting(s.recoversS, print)}`}
              </span>
            </span>
            <span className="shrink-0">{print(s.pathL, "volume")}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
