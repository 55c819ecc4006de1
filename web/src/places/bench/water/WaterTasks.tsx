import { useId, useState } from "react";
import type { Schema } from "../../../api/client";
import { newId } from "../../../app/ids";
import { say, usePrint } from "../../../app/units";
import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { NameForm } from "../../../ui/NameForm";
import { fieldClass } from "../../../ui/QuantityField";
import { useActions } from "../useActions";
import { ValveCard } from "./ValveCard";
import { Goal } from "./WaterGoal";
import { useWaterStore } from "./waterStore";

type Task = Schema["TaskSetting"];

/** What the valves are set for, one press each. */
export function Tasks({ tasks, task, rig }: { tasks: Task[]; task: Task | undefined; rig: Rig }) {
  const id = useId();
  const choose = useWaterStore((s) => s.choose);
  const keyOf = (t: Task) => (t.kind === "own" ? (t.scenarioId as string) : t.kind);
  return (
    <section className="pt-2.5">
      <label htmlFor={id} className="text-muted">
        Valves set to
      </label>
      <select
        id={id}
        className={`${fieldClass} mt-1 w-full border-rule`}
        value={task ? keyOf(task) : "tank"}
        onChange={(e) => {
          const to = tasks.find((t) => keyOf(t) === e.target.value);
          if (to) choose(rig.id, to.kind, to.kind === "own" ? to.scenarioId : null);
        }}
      >
        {tasks.map((t) => (
          <option key={keyOf(t)} value={keyOf(t)}>
            {t.name}
            {t.can ? "" : " (can't be done)"}
          </option>
        ))}
      </select>
      {task && <Chosen key={keyOf(task)} task={task} rig={rig} />}
      <NewScenario rig={rig} />
    </section>
  );
}

function Chosen({ task, rig }: { task: Task; rig: Rig }) {
  const [card, setCard] = useState(false);
  const { commit } = useActions();
  const print = usePrint();
  const { mend } = task;
  return (
    <>
      <p className="mt-1.5" data-task={task.kind} data-can={task.can}>
        {!task.can && <strong className="font-semibold">Can't be done. </strong>}
        {say(task.words, print)}
      </p>
      {mend && (
        <Button className="mt-1.5" onClick={() => commit(say(mend.words, print), mend.edits)}>
          {say(mend.words, print)}
        </Button>
      )}
      <Gear task={task} />
      <p className="mt-1 text-muted">{task.check}</p>
      {task.can && (
        <Button className="mt-1.5" onClick={() => setCard(true)}>
          Valve card…
        </Button>
      )}
      {card && <ValveCard rig={rig} task={task} onClose={() => setCard(false)} />}
      {task.caution && <p className="mt-1 font-medium">{task.caution}</p>}
      {task.scenarioId && task.kind !== "drain" && <Goal task={task} rig={rig} />}
    </>
  );
}

const key = (gear: Schema["ScenarioGear"]) => `${gear.kind} ${gear.partId} ${gear.port}`;

/** What is joined for the task alone. */
function Gear({ task }: { task: Task }) {
  const { commit } = useActions();
  const print = usePrint();
  const { gear, gearChoices: choices, scenarioId } = task;
  if (choices.length === 0 || !scenarioId) return null;
  const [only] = gear;
  if (only && gear.length === 1 && choices.length === 1)
    return (
      <p className="mt-1">
        <span className="text-muted">Joined for it: </span>
        {say(only.words, print)}.
      </p>
    );
  return (
    <label className="mt-1.5 block">
      <span className="text-muted">Joined for it</span>
      <select
        className={`${fieldClass} w-full border-rule`}
        data-gear
        value={gear.length === 1 && gear[0] ? key(gear[0].gear) : ""}
        onChange={(e) => {
          const chosen = choices.find((c) => key(c.gear) === e.target.value);
          commit(`Gear of ${task.name}`, [
            { kind: "change", thing: `scenarios/${scenarioId}`, values: { gear: chosen?.gear ?? null } as never },
          ]);
        }}
      >
        <option value="">
          {gear.length > 1 ? gear.map((g) => say(g.words, print)).join("; ") : task.kind === "fill" ? "The hose for town water" : "Nothing"}
        </option>
        {choices.map((c) => (
          <option key={key(c.gear)} value={key(c.gear)}>
            {say(c.words, print)}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A scenario of the user's own: a name, then what it asks of the water. */
function NewScenario({ rig }: { rig: Rig }) {
  const choose = useWaterStore((s) => s.choose);
  const { commit } = useActions();
  const add = (name: string) => {
    const id = newId("scenario");
    const goal = { from: [], reach: [], avoid: [] };
    commit(`Scenario ${name}`, [{ kind: "add", list: "scenarios", value: { id, name, kind: "own", settings: [], goal } as never }]);
    choose(rig.id, "own", id);
  };
  return <NameForm className="mt-1.5" ask="Add a scenario…" label="Name of the scenario" submit="Add" onName={add} />;
}
