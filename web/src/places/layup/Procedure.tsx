import { useEffect, useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { plural, say, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Button, Panel, Tick } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAsked, useLast } from "../bench/useAsked";
import { LeftState } from "../drain/LeftState";
import { useLeft } from "../drain/useLeft";
import { Begin } from "./Begin";
import { Dose } from "./Dose";
import { Ends } from "./Ends";
import { airInput, doseInput, fluidInput, useLayUp } from "./layUpStore";
import { OwnSteps } from "./OwnSteps";
import { rowClass } from "./rowClass";
import { Schools } from "./Schools";
import type { Shown } from "./StepDrawing";
import { StepWords } from "./StepWords";

type Made = Schema["ProcedureAnswer"];

/** A procedure made from this rig: looked through here, and walked through beside the vehicle. */
export function Procedure({ rig, onShow }: { rig: Rig; onShow(shown: Shown): void }) {
  const lay = useLayUp();
  const input = useMemo(() => ({ kind: lay.kind, air: airInput(lay), fluid: fluidInput(lay), dose: doseInput(lay) }), [lay]);
  const asked = useAsked("procedure", input);
  const left = useLeft(rig);
  const print = usePrint();
  const [at, setAt] = useState(0);
  const made = useLast(rig.id, asked.data);
  const index = Math.min(at, (made?.steps.length ?? 1) - 1);
  const step = made?.steps[index];
  useEffect(() => {
    if (step) onShow({ partIds: step.partIds, number: index + 1, title: say(step.words, print), air: null, stepId: null });
  }, [step, index, print, onShow]);
  if (asked.error) return <p role="alert">Couldn't make the steps. {asked.error.message}</p>;
  if (!made) return <p className="text-muted">Making the steps…</p>;
  return (
    <Stale stale={!asked.data} className="flex min-w-0 flex-col gap-3">
      <Panel className="p-3" aria-label="Which procedure">
        <select
          aria-label="Procedure"
          className={`${fieldClass} w-full border-rule text-[17px] font-semibold`}
          value={lay.kind}
          onChange={(e) => {
            lay.set({ kind: e.target.value as Schema["ProcedureKind"] });
            setAt(0);
          }}
        >
          {made.all.map((p) => (
            <option key={p.kind} value={p.kind}>
              {p.name}
            </option>
          ))}
        </select>
        <Sums made={made} />
        {made.steps.some((s) => s.id === "dose") && <Dose />}
        <Ready key={lay.kind} made={made} />
        <Begin rig={rig} input={input} made={made} />
      </Panel>
      {left.known && <LeftState left={left} />}
      {step && <Preview made={made} index={index} step={step} onStep={setAt} />}
      <AllSteps made={made} index={index} onStep={setAt} />
      <Ends made={made} rig={rig} />
      <OwnSteps rig={rig} all={made.all} />
      <Schools />
    </Stale>
  );
}

function Sums({ made }: { made: Made }) {
  const print = usePrint();
  return (
    <p className="mt-2 text-muted" data-procedure={made.kind}>
      {plural(made.steps.length, "step")}, {print(made.shortestS, "duration")} to {print(made.longestS, "duration")}.{" "}
      {made.inL > 0 && (
        <>
          {print(made.outL, "volume")} of {print(made.inL, "volume")} come out;{" "}
          <strong className="font-semibold text-ink">{print(made.staysL, "volume")} left</strong>.{" "}
        </>
      )}
      {made.fluidL > 0 && <>{print(made.fluidL, "volume")} of antifreeze go in. </>}
      Estimates.
    </p>
  );
}

/** Tools and supplies, ticked before it begins. */
function Ready({ made }: { made: Made }) {
  const print = usePrint();
  const [have, setHave] = useState<ReadonlySet<string>>(new Set());
  const wanted = [...made.tools, ...made.supplies.map((s) => say(s, print))];
  if (wanted.length === 0) return null;
  return (
    <details className="mt-1" open>
      <summary className="h-10 cursor-pointer content-center font-medium">
        Have at hand: {have.size} of {wanted.length}
      </summary>
      <ul className="grid grid-cols-1 gap-x-2" aria-label="Have at hand">
        {wanted.map((name) => (
          <li key={name} className="flex items-center">
            <Tick
              label={`Have: ${name}`}
              on={have.has(name)}
              onChange={(on) => setHave(new Set(on ? [...have, name] : [...have].filter((n) => n !== name)))}
            />
            {name}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A step to look at, before it is done. */
function Preview(props: { made: Made; index: number; step: Schema["ProcedureStep"]; onStep(at: number): void }) {
  const { made, index, step, onStep } = props;
  const last = index >= made.steps.length - 1;
  return (
    <Panel className="p-4" aria-label="Step">
      <StepWords step={step} number={index + 1} of={made.steps.length} />
      <div className="mt-3 grid grid-cols-2 gap-2">
        <Button className="h-16 text-[17px]" disabled={index === 0} onClick={() => onStep(index - 1)}>
          Back
        </Button>
        <Button className="h-16 text-[17px]" data-next disabled={last} onClick={() => onStep(index + 1)}>
          Next step
        </Button>
      </div>
    </Panel>
  );
}

function AllSteps({ made, index, onStep }: { made: Made; index: number; onStep(at: number): void }) {
  const print = usePrint();
  return (
    <Panel className="p-3" aria-label="All steps">
      <ol className="flex flex-col">
        {made.steps.map((s, i) => (
          <li key={s.id}>
            <button type="button" className={rowClass} aria-pressed={i === index} onClick={() => onStep(i)}>
              <span className="w-6 shrink-0 text-right font-semibold">{i + 1}</span>
              <span className="min-w-0 grow">{say(s.words, print)}</span>
              {s.outL != null && s.outL >= 0.0005 && <span className="shrink-0 font-semibold">{print(s.outL, "volume")}</span>}
            </button>
          </li>
        ))}
      </ol>
    </Panel>
  );
}
