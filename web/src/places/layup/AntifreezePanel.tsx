import { useEffect, useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { usePrint } from "../../app/units";
import { added } from "../../document/edits";
import { indexOf, type Rig } from "../../document/geometry";
import { Button, Caution, Panel, Slider, Switch } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useActions } from "../bench/useActions";
import { useAsked, useLast } from "../bench/useAsked";
import { fluidInput, useLayUp } from "./layUpStore";
import { rowClass } from "./rowClass";
import type { Shown } from "./StepDrawing";

type Fluid = Schema["AntifreezeAnswer"];

/** How much antifreeze, and how strong it is at each outlet. */
export function AntifreezePanel({ rig, onShow }: { rig: Rig; onShow(shown: Shown): void }) {
  const lay = useLayUp();
  const input = useMemo(() => fluidInput(lay), [lay]);
  const asked = useAsked("antifreeze", input);
  const [chosen, setChosen] = useState<string | null>(null);
  const fluid = useLast(rig.id, asked.data);
  const step = fluid?.steps.find((s) => s.id === chosen);
  useEffect(() => {
    if (!fluid) return;
    onShow({
      partIds: step ? [step.partId] : fluid.gear.map((g) => g.partId),
      number: step ? fluid.steps.indexOf(step) + 1 : null,
      title: step ? step.name : "Where the bottle goes",
      air: null,
      stepId: null,
    });
  }, [fluid, step, onShow]);
  if (asked.error) return <p role="alert">Couldn't calculate the antifreeze. {asked.error.message}</p>;
  if (!fluid) return <p className="text-muted">Calculating…</p>;
  return (
    <Stale stale={!asked.data} className="flex min-w-0 flex-col gap-3">
      <Panel className="p-3" aria-label="Antifreeze">
        <Totals fluid={fluid} rig={rig} />
        <div className="mt-2">
          <Caution>
            Only propylene glycol that is meant for drinking-water systems. The burst rating on a bottle is not its freezing point.
          </Caution>
        </div>
      </Panel>
      <Panel className="p-3" aria-label="At each outlet">
        <h2 className="font-semibold">At each outlet, in order</h2>
        <ol className="mt-1">
          {fluid.steps.map((s, i) => (
            <Outlet key={s.id} step={s} number={i + 1} chosen={s.id === chosen} nightC={fluid.nightC} onChoose={() => setChosen(s.id)} />
          ))}
        </ol>
      </Panel>
      <Plain fluid={fluid} />
      <Keep fluid={fluid} />
    </Stale>
  );
}

function Totals({ fluid, rig }: { fluid: Fluid; rig: Rig }) {
  const lay = useLayUp();
  const print = usePrint();
  const { parts } = indexOf(rig);
  return (
    <>
      <p className="text-[19px] font-semibold" data-fluid={fluid.totalL.toFixed(3)}>
        {print(fluid.totalL, "volume")} of antifreeze
      </p>
      <p className="text-muted">
        {fluid.bottles.map((b) => `${b.count} × ${print(b.sizeL, "volume")}`).join(" or ")}. Lines and parts hold{" "}
        {print(fluid.linesL, "volume")}
        {fluid.heaterL > 0 && `, ${print(fluid.heaterL, "volume")} of it in the heater`}
        {fluid.bypassed && ", heater bypassed"}
        {fluid.traps.length > 0 && `; traps take ${print(fluid.trapsL, "volume")}`}. Estimates.
      </p>
      {fluid.gear.length > 0 && (
        <p className="mt-1">Bottle on {fluid.gear.map((g) => parts.get(g.partId)?.name ?? g.partId).join(", ")}.</p>
      )}
      {!fluid.can && <p className="font-medium">The valves don't let fluid to every outlet, or let some into a tank.</p>}
      <div className="mt-2">
        <span className="text-muted">Glycol in the bottle: {print(lay.glycol, "share")}</span>
        <Slider
          label="Glycol in the bottle"
          value={lay.glycol}
          min={0.2}
          max={0.6}
          step={0.01}
          text={print(lay.glycol, "share")}
          onChange={(glycol) => lay.set({ glycol })}
        />
      </div>
      <div className="mt-2 flex items-center justify-between gap-2">
        <span>Drained first</span>
        <Switch label="Drained first" on={lay.drained} onChange={(drained) => lay.set({ drained })} />
      </div>
    </>
  );
}

function Outlet(props: { step: Schema["AntifreezeStep"]; number: number; chosen: boolean; nightC: number; onChoose(): void }) {
  const { step: s, number, chosen, nightC, onChoose } = props;
  const print = usePrint();
  return (
    <li data-outlet-fluid={s.id} data-weak={s.weak}>
      <button type="button" className={rowClass} aria-pressed={chosen} onClick={onChoose}>
        <span className="w-6 shrink-0 text-right font-semibold">{number}</span>
        <span className="min-w-0 grow">
          {s.name}
          <span className="block text-muted">
            {s.runIds.length === 0
              ? "no fluid gets there"
              : `${print(s.glycol, "share")} glycol: no ice to ${print(s.freezesC, "temperature")}, no burst to ${print(s.burstsC, "temperature")}`}
          </span>
          {s.weak && s.runIds.length > 0 && (
            <span className="block font-medium">
              Ice on your coldest night, {print(nightC, "temperature")}: drain better, or stronger fluid.
            </span>
          )}
        </span>
        <span className="shrink-0">{print(s.drawnL, "volume")}</span>
      </button>
    </li>
  );
}

/** What no fluid gets to. */
function Plain({ fluid }: { fluid: Fluid }) {
  const print = usePrint();
  if (fluid.plain.length === 0) return null;
  return (
    <Panel className="p-3" aria-label="Plain water">
      <h2 className="font-semibold">Plain water stays in</h2>
      <ul>
        {fluid.plain.map((p) => (
          <li key={p.runId} className="flex gap-2 border-b border-rule py-1">
            <span className="min-w-0 grow">{p.name}</span>
            {print(p.litres, "volume")}
          </li>
        ))}
      </ul>
    </Panel>
  );
}

/** Said of the rig, it is what its night starts from. */
function Keep({ fluid }: { fluid: Fluid }) {
  const { commit } = useActions();
  if (fluid.stands.length === 0) return null;
  const keep = () => {
    const at = new Date().toISOString();
    commit(
      "Filled with antifreeze",
      fluid.stands.map((s) => added("left", { id: newId("act"), kind: "antifreeze", at, thing: s.thing, glycol: s.glycol })),
    );
  };
  return (
    <Panel className="p-3" aria-label="Once it is in">
      <p className="text-muted">
        Once it is in, the rig remembers where antifreeze stands and how strong it is: the night as left starts from that.
      </p>
      <Button className="mt-2" onClick={keep}>
        Record the antifreeze
      </Button>
    </Panel>
  );
}
