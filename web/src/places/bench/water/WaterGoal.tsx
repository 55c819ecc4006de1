import { useState } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { indexOf, type Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { fieldClass } from "../../../ui/QuantityField";
import { useActions } from "../useActions";
import { useWaterStore } from "./waterStore";

type Task = Schema["TaskSetting"];
type List = keyof Schema["ScenarioGoal"];

const lists: { list: List; name: string; none: string }[] = [
  { list: "from", name: "Water comes from", none: "nowhere yet" },
  { list: "reach", name: "It has to get to", none: "nothing yet" },
  { list: "avoid", name: "It must not get to", none: "nothing named" },
];

/** Where the water of a task comes from, and where it has to get to and must not: what its valves are found for. */
export function Goal({ task, rig }: { task: Task; rig: Rig }) {
  const own = task.kind === "own";
  const [shown, setShown] = useState(own);
  const { commit } = useActions();
  const choose = useWaterStore((s) => s.choose);
  const scenario = rig.scenarios.find((s) => s.id === task.scenarioId);
  if (!scenario) return null;
  const thing = `scenarios/${scenario.id}`;
  const change = (goal: Schema["ScenarioGoal"] | null) =>
    commit(`Where the water of ${task.name} goes`, [{ kind: "change", thing, values: { goal } as never }]);
  return (
    <details className="mt-1.5" open={shown} onToggle={(e) => setShown(e.currentTarget.open)} data-goal={scenario.id}>
      <summary className="h-10 cursor-pointer content-center font-medium">Where its water goes</summary>
      {lists.map((l) => (
        <Places key={l.list} {...l} rig={rig} ids={task.goal[l.list]} onChange={(ids) => change({ ...task.goal, [l.list]: ids })} />
      ))}
      {scenario.settings.length > 0 && (
        <div className="mt-1.5 flex items-center gap-2">
          <span className="min-w-0 grow text-muted">Kept by hand: {scenario.settings.length} positions</span>
          <Button quiet onClick={() => commit(`Positions of ${task.name}`, [{ kind: "change", thing, values: { settings: [] } as never }])}>
            Find them anew
          </Button>
        </div>
      )}
      {own ? (
        <Button
          quiet
          className="mt-1.5"
          onClick={() => {
            choose(rig.id, "tank");
            commit(`Remove ${task.name}`, [{ kind: "remove", thing }]);
          }}
        >
          Remove this scenario
        </Button>
      ) : (
        scenario.goal && (
          <Button quiet className="mt-1.5" onClick={() => change(null)}>
            Set as usual
          </Button>
        )
      )}
    </details>
  );
}

function Places({
  list,
  name,
  none,
  rig,
  ids,
  onChange,
}: {
  list: List;
  name: string;
  none: string;
  rig: Rig;
  ids: readonly string[];
  onChange(ids: string[]): void;
}) {
  const { stock } = useCatalogue();
  const { parts, runsAt } = indexOf(rig);
  const wet = rig.parts.filter((p) =>
    (runsAt.get(p.id) ?? []).some((r) => r.service === "cold" || r.service === "hot" || r.service === "fill"),
  );
  const isSource = (group?: string) => group === "store" || group === "fill";
  const isEnd = (passage?: string) => passage === "vessel" || passage === "mixer" || passage === "drain" || passage === "openEnd";
  const free = wet
    .filter((p) => !ids.includes(p.id) && (list === "from" ? isSource(stock.get(p.stock)?.group) : stock.get(p.stock)?.group !== "joints"))
    // What water comes from or goes to leads.
    .sort(
      (a, b) => Number(isEnd(stock.get(b.stock)?.passage)) - Number(isEnd(stock.get(a.stock)?.passage)) || a.name.localeCompare(b.name),
    );
  return (
    <fieldset className="mt-1" data-places={list}>
      <legend className="text-muted">
        {name}
        {ids.length === 0 && `: ${none}`}
      </legend>
      <ul className="flex flex-wrap gap-1">
        {ids.map((id) => (
          <li key={id} className="flex min-h-10 items-center gap-1 rounded-md bg-sunk pl-2">
            {parts.get(id)?.name ?? id}
            <Button quiet aria-label={`Remove ${parts.get(id)?.name ?? id}`} onClick={() => onChange(ids.filter((x) => x !== id))}>
              ×
            </Button>
          </li>
        ))}
      </ul>
      <select
        aria-label={`${name}: add`}
        className={`${fieldClass} mt-1 w-full border-rule`}
        value=""
        onChange={(e) => e.target.value && onChange([...ids, e.target.value])}
      >
        <option value="">Add a part…</option>
        {free.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </fieldset>
  );
}
