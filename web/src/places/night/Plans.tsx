import { useState } from "react";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { useClock } from "../../app/units";
import { added, changed, removed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { verdictWords } from "../../drawing/temperature";
import { Button, Panel } from "../../ui/controls";
import { PickField, TextField } from "../../ui/QuantityField";
import { useAnswers, useDocument, useStores } from "../bench/benchStores";
import { useHeld } from "./held";
import { changedRungs, conditionsOf, isLeftAs, planOf } from "./plan";
import { freeName } from "./usePlan";

const SHOWN = 8;

/** Plans that the rig keeps, and one night laid over another. */
export function Plans({ night, rig, stale }: { night: Schema["NightHoursAnswer"]; rig: Rig; stale: boolean }) {
  const { document, answers } = useStores();
  const conditions = useAnswers((s) => s.conditions);
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const revision = useDocument((s) => s.revision);
  const { held, hold } = useHeld();
  const [name, setName] = useState("");
  if (!conditions) return null;
  const plans = rig.plans ?? [];
  const now = plans.find((p) => p.id === conditions.planId);
  const changedSince = now && !isLeftAs(conditions, now);
  const keep = (as: string) => {
    const same = plans.find((p) => p.name === as);
    const { id, ...plan } = planOf(conditions, same?.id ?? newId("plan"), as, now?.events ?? []);
    document.commit(`Plan ${as} kept`, [same ? changed(`plans/${id}`, plan) : added("plans", { id, ...plan })]);
    answers.setConditions({ planId: id });
  };
  const shown = held?.rigId === rig.id ? held : null;
  return (
    <Panel className="flex flex-col gap-2 p-3" aria-label="Plans">
      <h2 className="text-[17px] font-semibold">Plans</h2>
      {plans.length > 0 && (
        <PickField
          label="Saved with the rig"
          value={now?.id ?? ""}
          options={[{ value: "", text: "None" }, ...plans.map((p) => ({ value: p.id, text: p.name }))]}
          onCommit={(id) => {
            const plan = plans.find((p) => p.id === id);
            answers.setConditions(plan ? conditionsOf(plan) : { planId: null });
          }}
        />
      )}
      {now ? (
        <TextField
          key={now.id}
          label="Its name"
          value={now.name}
          onCommit={(as) => document.commit(`Plan ${as} renamed`, [changed(`plans/${now.id}`, { name: as })])}
        />
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
          <TextField label="Save this night as" value={name} onCommit={setName} />
          <Button
            disabled={previewing || name === ""}
            onClick={() => {
              keep(name);
              setName("");
            }}
          >
            Keep
          </Button>
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        {changedSince && (
          <Button disabled={previewing} onClick={() => keep(now.name)}>
            Update “{now.name}”
          </Button>
        )}
        {now && (
          <Button disabled={previewing} onClick={() => keep(freeName(plans, now.name))}>
            Copy it
          </Button>
        )}
        {now && (
          <Button disabled={previewing} onClick={() => document.commit(`Plan ${now.name} deleted`, [removed(`plans/${now.id}`)])}>
            Delete “{now.name}”
          </Button>
        )}
        <Button
          disabled={stale}
          aria-pressed={shown !== null}
          onClick={() => hold(shown ? null : { rigId: rig.id, what: `${now?.name ?? "the night before"}, revision ${revision}`, night })}
          className="aria-pressed:border-ink"
        >
          {shown ? "Stop comparing" : "Compare with…"}
        </Button>
      </div>
      {shown && <Changed before={shown.night} after={night} what={shown.what} />}
    </Panel>
  );
}

function Changed({ before, after, what }: { before: Schema["NightHoursAnswer"]; after: Schema["NightHoursAnswer"]; what: string }) {
  const clock = useClock();
  const rows = changedRungs(before, after);
  const at = (night: Schema["NightHoursAnswer"], s: number | null) => (s === null ? "no ice" : clock(night.startHour, s));
  return (
    <section aria-label="What changed">
      <p>
        <span className="text-muted">Compared with: {what}. </span>
        {before.verdict === after.verdict
          ? verdictWords[after.verdict]
          : `${verdictWords[before.verdict]} → ${verdictWords[after.verdict]}`}
        {rows.length === 0 && <span className="text-muted">. Nothing freezes at another time.</span>}
      </p>
      {rows.length > 0 && (
        <table className="mt-1 w-full">
          <thead className="text-muted">
            <tr>
              <th className="text-left font-normal">ice in</th>
              <th className="text-right font-normal">before</th>
              <th className="text-right font-normal">now</th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, SHOWN).map((r) => (
              <tr key={r.id} className="border-t border-rule">
                <td className="py-1">{r.name}</td>
                <td className="py-1 pl-2 text-right whitespace-nowrap">{at(before, r.before)}</td>
                <td className="py-1 pl-2 text-right font-semibold whitespace-nowrap">{at(after, r.after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {rows.length > SHOWN && <p className="text-muted">and {rows.length - SHOWN} more, later.</p>}
    </section>
  );
}
