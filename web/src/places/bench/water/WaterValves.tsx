import { useState } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { newId } from "../../../app/ids";
import { indexOf, type Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { fieldClass } from "../../../ui/QuantityField";
import { useStores } from "../benchStores";
import { useActions } from "../useActions";
import { useWaterStore } from "./waterStore";

/** Valves and drains, each with its positions. */
export function Valves({ flow, rig }: { flow: Schema["WaterFlowAnswer"]; rig: Rig }) {
  const { stock } = useCatalogue();
  const { parts } = indexOf(rig);
  const turnTo = useWaterStore((s) => s.turn);
  const shut = new Set(flow.shutAt);
  const rows = flow.settings.flatMap((s) => {
    const part = parts.get(s.id);
    const of = part && stock.get(part.stock);
    return part && of && of.passage !== "mixer" && of.passage !== "pump" ? [{ part, of, position: s.position }] : [];
  });
  return (
    <section>
      <h3 className="mt-3 font-semibold">Valves and drains</h3>
      <ul>
        {rows.map(({ part, of, position }) => (
          <li key={part.id} className="flex items-center gap-2 border-b border-rule py-1">
            <span className="min-w-0 grow">
              <span className="block truncate" title={part.name}>
                {part.name}
              </span>
              {shut.has(part.id) && <span className="text-muted">water stands at it</span>}
            </span>
            <div className="w-32 shrink-0">
              <select
                aria-label={part.name}
                className={`${fieldClass} border-rule`}
                value={position}
                onChange={(e) => turnTo(rig.id, part.id, e.target.value)}
              >
                {of.positions.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was turned by hand, kept in the scenario of the task, or as one of one's own. */
export function Keep({ rig, turned, task }: { rig: Rig; turned: Record<string, string>; task: Schema["TaskSetting"] | undefined }) {
  const [name, setName] = useState("");
  const choose = useWaterStore((s) => s.choose);
  const { commit } = useActions();
  const { document } = useStores();
  const { stock } = useCatalogue();
  const { parts } = indexOf(rig);
  const set = Object.entries(turned).filter(([id]) => stock.get(parts.get(id)?.stock ?? "")?.passage !== "mixer");
  if (set.length === 0) return null;
  const keepHere = () => {
    if (!task?.scenarioId) return;
    const scenarioId = task.scenarioId;
    commit(
      `Valves of ${task.name}`,
      set.map(([partId, position]) => ({ kind: "setPosition" as const, scenarioId, partId, position })),
    );
    choose(rig.id, task.kind, task.kind === "own" ? task.scenarioId : null);
  };
  return (
    <section className="mt-3 flex flex-col gap-2">
      <h3 className="font-semibold">Turned by hand: {set.length}</h3>
      <div className="flex flex-wrap gap-2">
        {task?.scenarioId && <Button onClick={keepHere}>Keep for “{task.name}”</Button>}
        <Button onClick={() => choose(rig.id, task?.kind ?? "tank", task?.kind === "own" ? task.scenarioId : null)}>Turn back</Button>
      </div>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim() === "" || !document.getState().rig) return;
          const id = newId("scenario");
          const settings = [...new Map([...(task?.settings ?? []).map((s) => [s.id, s.position] as const), ...set])]
            .map(([of, position]) => ({ id: of, position }))
            .sort((a, b) => (a.id < b.id ? -1 : 1));
          commit(`Scenario ${name.trim()}`, [
            { kind: "add", list: "scenarios", value: { id, name: name.trim(), kind: "own", settings } as never },
          ]);
          choose(rig.id, "own", id);
          setName("");
        }}
      >
        <label className="min-w-0 grow">
          <span className="text-muted">Save as a scenario</span>
          <input value={name} maxLength={80} onChange={(e) => setName(e.target.value)} className={`${fieldClass} w-full border-rule`} />
        </label>
        <Button type="submit" disabled={name.trim() === ""}>
          Save
        </Button>
      </form>
    </section>
  );
}
