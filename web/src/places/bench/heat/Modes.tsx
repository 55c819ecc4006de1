import { useState } from "react";
import type { Schema } from "../../../api/client";
import { newId } from "../../../app/ids";
import { say, usePrint } from "../../../app/units";
import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { NameForm } from "../../../ui/NameForm";
import { fieldClass } from "../../../ui/QuantityField";
import { Working } from "../../../ui/Working";
import { useAnswers, useDocument, useStores } from "../benchStores";
import { useActions } from "../useActions";
import { useJob, useLast } from "../useAsked";
import { ModeTable } from "./ModeTable";
import { useHandles } from "./useHandles";

type Mode = Schema["HeatMode"];

/** What the valves and pumps of the circuits can be set to: one press looks at the night in it. */
export function Modes({ rig }: { rig: Rig }) {
  const id = useDocument((s) => s.id);
  const asked = useJob("modes");
  const modes = useLast(id, asked.data);
  const { setConditions } = useStores().answers;
  const conditions = useAnswers((s) => s.conditions);
  const [table, setTable] = useState(false);
  const print = usePrint();
  if (!modes) return <Working words="Trying every position of the valves…" asked={asked} />;
  if (modes.modes.length === 0) return null;
  const take = (mode: Mode) =>
    setConditions(
      mode.inUse
        ? { modeId: null, heatSettings: null }
        : mode.scenarioId
          ? { modeId: mode.scenarioId, heatSettings: null }
          : { modeId: null, heatSettings: mode.settings },
    );
  const isNow = (mode: Mode) =>
    mode.inUse
      ? !conditions?.modeId && !conditions?.heatSettings
      : mode.scenarioId
        ? conditions?.modeId === mode.scenarioId
        : !!conditions?.heatSettings && positioned(conditions.heatSettings) === positioned(mode.settings);
  // Of what was set before a valve was added, the answer knows which mode it is.
  const now = modes.modes.find(isNow) ?? (asked.data ? modes.modes.find((m) => m.now) : undefined);
  const brief = (mode: Mode) =>
    `${[print(mode.givenW, "power"), ...taken(mode, print)].join(", ")}: ${mode.firstIceS == null ? "nothing freezes" : `freezes after ${print(mode.firstIceS, "duration")}`}`;
  return (
    <section aria-label="Modes" className="mt-3" data-modes={modes.modes.length}>
      <label className="block">
        <span className="text-muted">Valves and pumps set to</span>
        <select
          className={`${fieldClass} mt-1 w-full border-rule`}
          value={now?.key ?? ""}
          onChange={(e) => {
            const to = modes.modes.find((m) => m.key === e.target.value);
            if (to) take(to);
          }}
        >
          {!now && <option value="">…</option>}
          {modes.modes.map((m) => (
            <option key={m.key} value={m.key}>
              {m.name}
              {m.inUse ? " (as in use)" : ""}
            </option>
          ))}
        </select>
      </label>
      {now && <Chosen mode={now} rig={rig} />}
      <details className="mt-1.5" data-compare-modes>
        <summary className="min-h-10 cursor-pointer content-center font-medium">Compare {modes.modes.length} modes on this night</summary>
        <ul>
          {modes.modes.map((mode) => (
            <li key={mode.key}>
              <button
                type="button"
                aria-pressed={isNow(mode)}
                data-mode={mode.key}
                className="min-h-11 w-full rounded-md px-2 py-1 text-left hover:bg-sunk aria-pressed:bg-sunk"
                onClick={() => take(mode)}
              >
                <span className={isNow(mode) ? "font-semibold" : ""}>{mode.name}</span>
                <span className="block text-muted">{brief(mode)}</span>
              </button>
            </li>
          ))}
        </ul>
        {modes.searched && <p className="mt-1 text-muted">{say(modes.searched, print)}</p>}
        {modes.turned.length > 0 && (
          <Button className="mt-2" onClick={() => setTable(true)}>
            Show the table of positions…
          </Button>
        )}
        <Missing missing={modes.missing} />
      </details>
      {table && <ModeTable rig={rig} modes={modes} onClose={() => setTable(false)} />}
    </section>
  );
}

const positioned = (settings: readonly Schema["Setting"][]) =>
  [...settings]
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((s) => `${s.id}=${s.position}`)
    .join();

const energies: Record<Schema["EnergyKind"], { of: string; quantity: Schema["Quantity"] }> = {
  fuel: { of: "fuel", quantity: "volume" },
  battery: { of: "battery", quantity: "energy" },
  mains: { of: "mains", quantity: "energy" },
};

/** What a mode takes until morning. */
const taken = (mode: Mode, print: ReturnType<typeof usePrint>) =>
  mode.takes.map((t) => `${print(t.untilMorning, energies[t.kind].quantity)} of ${energies[t.kind].of}`);

/** What to turn for the mode that is looked at, what is wrong with it, and how it is kept. */
function Chosen({ mode, rig }: { mode: Mode; rig: Rig }) {
  const print = usePrint();
  const handles = useHandles(rig);
  const { commit } = useActions();
  const { setConditions } = useStores().answers;
  const use = rig.scenarios.find((s) => s.kind === "inUse");
  return (
    <div className="mt-1.5" data-chosen-mode={mode.key}>
      <p>{say(mode.night, print)}</p>
      {mode.takes.length > 0 && <p className="mt-1">Takes {taken(mode, print).join(" and ")} until morning.</p>}
      {mode.turns.length > 0 && (
        <p className="mt-1">
          <span className="text-muted">Turn from in use: </span>
          {mode.turns.map((s) => `${handles.nameOf(s.id)} ${handles.positionOf(s)}`).join("; ")}.
        </p>
      )}
      {mode.checks.map((check) => (
        <p key={say(check, print)} className="mt-1">
          {say(check, print)}
        </p>
      ))}
      <div className="mt-1.5 flex flex-wrap gap-2">
        {!mode.scenarioId && <Keep mode={mode} />}
        {mode.scenarioId && (
          <Button
            quiet
            onClick={() => {
              setConditions({ modeId: null, heatSettings: null });
              commit(`Remove ${mode.name}`, [{ kind: "remove", thing: `scenarios/${mode.scenarioId}` }]);
            }}
          >
            Remove this mode
          </Button>
        )}
        {!mode.inUse && use && (
          <Button
            quiet
            onClick={() => {
              commit(
                `Valves in use as in ${mode.name}`,
                mode.turns.map((s) => ({ kind: "setPosition" as const, scenarioId: use.id, partId: s.id, position: s.position })),
              );
              setConditions({ modeId: null, heatSettings: null });
            }}
          >
            Leave the valves like this
          </Button>
        )}
      </div>
    </div>
  );
}

/** A mode that was found gets a name, and stays with the rig. */
function Keep({ mode }: { mode: Mode }) {
  const { commit } = useActions();
  const { setConditions } = useStores().answers;
  const keep = (name: string) => {
    const id = newId("mode");
    commit(`Mode ${name}`, [{ kind: "add", list: "scenarios", value: { id, name, kind: "heating", settings: mode.settings } as never }]);
    if (!mode.inUse) setConditions({ modeId: id, heatSettings: null });
  };
  return <NameForm ask="Keep it under a name…" label="Name of the mode" submit="Keep" first={mode.name} onName={keep} />;
}

/** What people want of a loop, and these valves do not give. */
function Missing({ missing }: { missing: Schema["MissingMode"][] }) {
  const print = usePrint();
  const { commit } = useActions();
  if (missing.length === 0) return null;
  return (
    <>
      <h3 className="mt-3 font-semibold">Can't be set</h3>
      <ul>
        {missing.map(({ name, words, mend }) => (
          <li key={name} className="py-1" data-missing-mode={name}>
            <strong className="font-semibold">{name}.</strong> {say(words, print)}
            {mend && (
              <Button className="mt-1 block" onClick={() => commit(say(mend.words, print), mend.edits)}>
                {say(mend.words, print)}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
