import type { UseMutationResult } from "@tanstack/react-query";
import { useState } from "react";
import type { Problem, Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { plural } from "../../app/units";
import { Button, Panel } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import type { Entry } from "./entries";

interface Props {
  rigId: string;
  log: Schema["LogAnswer"];
  write: UseMutationResult<unknown, Problem, Omit<Entry, "id" | "revision">>;
  remind: UseMutationResult<unknown, Problem, Schema["Reminder"]>;
}

const day = (on: string) => new Date(`${on}T12:00`).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" });

/** What is due next, and how often each is due. */
export function Due({ log, write, remind }: Props) {
  return (
    <Panel className="p-3" aria-label="Due next">
      <h2 className="text-[17px] font-semibold">Due next</h2>
      <ul>
        {log.due.map((d) => (
          <li key={d.id} className="flex items-center gap-2 border-b border-rule py-1" data-due={d.id} data-is-due={d.isDue}>
            <span className="min-w-0 grow">
              <span className={d.isDue ? "font-semibold" : ""}>{d.name}</span>
              <span className="block text-muted">
                {d.isDue ? "due since" : "due"} {day(d.dueOn)}
                {d.everyMonths === 0
                  ? ", an estimate"
                  : d.lastAt
                    ? `, last ${new Date(d.lastAt).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" })}`
                    : ", not logged yet"}
              </span>
            </span>
            {d.everyMonths > 0 && d.id !== "backup" && (
              <Button
                aria-label={`Done today: ${d.name}`}
                disabled={write.isPending}
                onClick={() => write.mutate({ kind: "care", at: new Date().toISOString(), words: d.name, care: d.id })}
              >
                Done today
              </Button>
            )}
          </li>
        ))}
      </ul>
      <details className="mt-1">
        <summary className="h-10 cursor-pointer content-center font-medium">Change intervals</summary>
        <ul className="flex flex-col gap-1">
          {log.reminders.map((r) => (
            <Interval key={`${r.id} ${r.everyMonths}`} reminder={r} remind={remind} />
          ))}
        </ul>
        <NewReminder remind={remind} />
        {remind.error && <p role="alert">{remind.error.message}</p>}
      </details>
    </Panel>
  );
}

function Interval({ reminder, remind }: { reminder: Schema["Reminder"]; remind: Props["remind"] }) {
  return (
    <li className="flex items-center gap-2">
      <span className="min-w-0 grow">
        {reminder.name}
        {reminder.laidUpOnly && <span className="text-muted">, while laid up</span>}
      </span>
      <select
        aria-label={`How often: ${reminder.name}`}
        className={`${fieldClass} max-w-40 shrink-0 border-rule`}
        value={reminder.everyMonths}
        onChange={(e) => remind.mutate({ ...reminder, everyMonths: Number(e.target.value) })}
      >
        {[...new Set([0, 1, 2, 3, 6, 12, 24, reminder.everyMonths])]
          .sort((a, b) => a - b)
          .map((n) => (
            <option key={n} value={n}>
              {n === 0 ? "never" : `every ${plural(n, "month")}`}
            </option>
          ))}
      </select>
    </li>
  );
}

function NewReminder({ remind }: { remind: Props["remind"] }) {
  const [name, setName] = useState("");
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        remind.mutate({ id: newId("own"), name: name.trim(), everyMonths: 12, laidUpOnly: false });
        setName("");
      }}
    >
      <input
        aria-label="A reminder of your own"
        placeholder="A reminder of your own"
        maxLength={80}
        className={`${fieldClass} border-rule`}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" disabled={!name.trim()}>
        Add
      </Button>
    </form>
  );
}
