import { useState } from "react";
import type { Schema } from "../../api/client";
import { ofLayUp } from "../../document/answersStore";
import type { Rig } from "../../document/geometry";
import { Panel } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import { useAnswers } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";
import { places } from "../night/places";
import { Due } from "./Due";
import { Entries } from "./Entries";
import { LogFiles } from "./LogFiles";
import { NewEntry } from "./NewEntry";
import { Over } from "./Over";
import { TimeLine } from "./TimeLine";
import { useLog } from "./useLog";

/** What was done and seen, when it is due again, and what came out over the years. */
export function LogPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="log" wanted={ofLayUp}>
      {(rig) => <Logbook rig={rig} />}
    </RigPlace>
  );
}

function Logbook({ rig }: { rig: Rig }) {
  const chosen = useAnswers((s) => s.conditions?.weather?.place ?? null);
  const [own, setOwn] = useState<Schema["WeatherPlace"] | null>(null);
  const { log, problem, write, remind, anew } = useLog(rig.id, own ?? chosen);
  const [correcting, setCorrecting] = useState<Schema["LogEntry"] | null>(null);
  if (problem && !log)
    return (
      <main className="p-4" role="alert">
        Couldn't load the logbook. {problem.message}
      </main>
    );
  if (!log) return <main className="p-4 text-muted">Loading the logbook…</main>;
  return (
    <main className="mx-auto grid w-full max-w-[96rem] grid-cols-[minmax(0,1fr)] items-start gap-3 p-3 min-[1000px]:grid-cols-[26rem_minmax(0,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <NewEntry rig={rig} correcting={correcting} write={write} reminders={log.reminders} onDone={() => setCorrecting(null)} />
        <Due rigId={rig.id} log={log} write={write} remind={remind} />
        <LogFiles rigId={rig.id} place={own ?? chosen} onRead={anew} />
      </div>
      <div className="flex min-w-0 flex-col gap-3">
        <Panel className="p-3" aria-label="Over the years">
          <div className="flex flex-wrap items-center gap-2">
            <h2 className="grow text-[17px] font-semibold">Through the seasons</h2>
            <label className="flex items-center gap-2 whitespace-nowrap text-muted">
              Frost as at
              <select
                aria-label="Frost as at"
                className={`${fieldClass} max-w-44 border-rule`}
                value={log.place}
                onChange={(e) => setOwn(e.target.value as Schema["WeatherPlace"])}
              >
                {Object.entries(places).map(([p, words]) => (
                  <option key={p} value={p}>
                    {words.split(":")[0]}
                  </option>
                ))}
              </select>
            </label>
          </div>
          <TimeLine log={log} />
          <Over collected={log.collected} />
        </Panel>
        <Entries log={log} onCorrect={setCorrecting} />
      </div>
    </main>
  );
}
