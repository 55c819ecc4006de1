import { useEffect, useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { lasting, plural, say, usePrint } from "../../app/units";
import { indexOf, type Rig } from "../../document/geometry";
import { Button, Caution, Panel, Tick } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAsked, useLast } from "../bench/useAsked";
import { Jug } from "../drain/Jug";
import { LeftState } from "../drain/LeftState";
import { useLeft } from "../drain/useLeft";
import { airInput, fluidInput, useLayUp } from "./layUpStore";
import { rowClass } from "./rowClass";
import { Schools } from "./Schools";
import type { Shown } from "./StepDrawing";

type Made = Schema["ProcedureAnswer"];

/** A procedure made from this rig, one big step at a time. */
export function Procedure({ rig, onShow }: { rig: Rig; onShow(shown: Shown): void }) {
  const lay = useLayUp();
  const input = useMemo(() => ({ kind: lay.kind, air: airInput(lay), fluid: fluidInput(lay) }), [lay]);
  const asked = useAsked("procedure", input);
  const left = useLeft(rig);
  const print = usePrint();
  const [at, setAt] = useState<number | null>(null);
  const made = useLast(rig.id, asked.data);
  const isDone = (s: Schema["ProcedureStep"]) => s.marks.length > 0 && s.marks.every(left.isDone);
  // It goes on behind what was done last, on whatever device.
  const goesOn = made?.steps.some((s) => s.marks.length > 0 && !isDone(s)) ?? false;
  const resumed = made && goesOn ? made.steps.findLastIndex(isDone) + 1 : 0;
  const index = Math.min(at ?? resumed, (made?.steps.length ?? 1) - 1);
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
            setAt(null);
          }}
        >
          {made.all.map((p) => (
            <option key={p.kind} value={p.kind}>
              {p.name}
            </option>
          ))}
        </select>
        <Sums made={made} />
        <Ready key={lay.kind} made={made} open={index === 0} />
      </Panel>
      {left.known && <LeftState left={left} />}
      {step && <Step made={made} index={index} step={step} left={left} onStep={setAt} />}
      <AllSteps made={made} index={index} isDone={isDone} onStep={setAt} />
      <Ends made={made} rig={rig} />
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
function Ready({ made, open }: { made: Made; open: boolean }) {
  const print = usePrint();
  const [have, setHave] = useState<ReadonlySet<string>>(new Set());
  const wanted = [...made.tools, ...made.supplies.map((s) => say(s, print))];
  if (wanted.length === 0) return null;
  return (
    <details className="mt-1" open={open}>
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

/** The step at hand, to be read with wet hands. */
function Step(props: {
  made: Made;
  index: number;
  step: Schema["ProcedureStep"];
  left: ReturnType<typeof useLeft>;
  onStep(at: number): void;
}) {
  const { made, index, step, left, onStep } = props;
  const print = usePrint();
  const last = index >= made.steps.length - 1;
  const undone = step.marks.filter((id) => !left.isDone(id));
  // What the rig remembers is remembered as it is done.
  const next = () => {
    if (undone.length > 0) left.tick(say(step.words, print), undone, true);
    if (!last) onStep(index + 1);
  };
  const times = step.shortestS != null ? [step.shortestS, step.longestS ?? step.shortestS] : null;
  return (
    <Panel className="p-4" aria-label="Step">
      <p className="text-muted">
        Step {index + 1} of {made.steps.length}
        {step.marks.length > 0 && undone.length === 0 && " · done"}
      </p>
      <p className="mt-1 text-[21px] leading-snug font-semibold" data-step={step.id}>
        {say(step.words, print)}
      </p>
      {step.caution && (
        <div className="mt-2">
          <Caution>{step.caution}</Caution>
        </div>
      )}
      <dl className="mt-2 grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-1">
        <Fact name="Comes out" value={step.outL != null ? print(step.outL, "volume") : null} />
        <Fact name="Goes in" value={step.inL != null ? print(step.inL, "volume") : null} />
        <Fact
          name={step.waits ? "Wait" : "Time"}
          value={times && (times[0] === times[1] ? lasting(times[0] ?? 0, print) : times.map((t) => lasting(t ?? 0, print)).join(" to "))}
        />
        <Fact name="Reached" value={step.reach} />
        <Fact name="Look out" value={step.wrong ? say(step.wrong, print) : null} />
      </dl>
      {step.marks.length === 1 && step.outL != null && <Jug left={left} partId={step.marks[0] as string} />}
      <div className="mt-3 grid grid-cols-2 gap-2">
        <Button className="h-16 text-[17px]" disabled={index === 0} onClick={() => onStep(index - 1)}>
          Back
        </Button>
        <Button className="h-16 text-[17px]" data-next disabled={last && undone.length === 0} onClick={next}>
          {undone.length > 0 ? "Done" : "Next step"}
        </Button>
      </div>
    </Panel>
  );
}

const Fact = ({ name, value }: { name: string; value: string | null | undefined | false }) =>
  value ? (
    <>
      <dt className="text-muted">{name}</dt>
      <dd>{value}</dd>
    </>
  ) : null;

function AllSteps(props: { made: Made; index: number; isDone(s: Schema["ProcedureStep"]): boolean; onStep(at: number): void }) {
  const { made, index, isDone, onStep } = props;
  const print = usePrint();
  return (
    <Panel className="p-3" aria-label="All steps">
      <ol className="flex flex-col">
        {made.steps.map((s, i) => (
          <li key={s.id}>
            <button type="button" className={rowClass} aria-pressed={i === index} onClick={() => onStep(i)}>
              <span className="w-6 shrink-0 text-right font-semibold">{i + 1}</span>
              <span className="min-w-0 grow">
                {say(s.words, print)}
                {isDone(s) && <span className="text-muted"> · done</span>}
              </span>
              {s.outL != null && s.outL >= 0.0005 && <span className="shrink-0 font-semibold">{print(s.outL, "volume")}</span>}
            </button>
          </li>
        ))}
      </ol>
    </Panel>
  );
}

/** How everything stands once it is done. */
function Ends({ made, rig }: { made: Made; rig: Rig }) {
  const { stock } = useCatalogue();
  const { parts } = indexOf(rig);
  if (made.ends.length === 0) return null;
  return (
    <Panel className="p-3" aria-label="At the end">
      <h2 className="font-semibold">At the end</h2>
      <ul className="mt-1 grid grid-cols-1 gap-x-4 min-[560px]:grid-cols-2">
        {made.ends.map((e) => {
          const part = parts.get(e.id);
          const position = part && stock.get(part.stock)?.positions.find((p) => p.id === e.position);
          return part && position ? (
            <li key={e.id} className="flex gap-2 border-b border-rule py-1">
              <span className="min-w-0 grow truncate" title={part.name}>
                {part.name}
              </span>
              <strong className="font-semibold">{position.name}</strong>
            </li>
          ) : null;
        })}
      </ul>
    </Panel>
  );
}
