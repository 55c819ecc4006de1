import { useState } from "react";
import { api, data, type Problem, type Schema } from "../../api/client";
import { plural } from "../../app/units";
import { Panel } from "../../ui/controls";
import { PickFile } from "../../ui/PickFile";

/** The logbook as a table, out and in, and what is due as a calendar file. */
export function LogFiles({ rigId, place, onRead }: { rigId: string; place: Schema["WeatherPlace"] | null; onRead(): void }) {
  const [said, setSaid] = useState<string[]>([]);
  const link = "inline-flex min-h-10 items-center rounded-md border border-rule bg-panel px-3 font-medium hover:border-strong";
  async function read(file: File) {
    try {
      const body = { text: await file.text() };
      const { added } = data(await api.POST("/api/rigs/{id}/log/table", { params: { path: { id: rigId } }, body }));
      setSaid([added === 0 ? "Nothing in it was new." : `${plural(added, "entry was", "entries were")} added.`]);
      onRead();
    } catch (problem) {
      const { fields, message } = problem as Problem;
      const faults = Object.entries(fields).map(([at, reasons]) => `${at}: ${reasons.join("; ")}`);
      setSaid(["Nothing was added.", ...(faults.length > 0 ? faults.slice(0, 6) : [message])]);
    }
  }
  return (
    <Panel className="p-3" aria-label="Files">
      <div className="flex flex-wrap gap-2">
        <a className={link} href={`/api/rigs/${rigId}/log.csv`} download>
          Save as table
        </a>
        <PickFile label="Logbook table" accept=".csv,text/csv" onPick={(file) => void read(file)}>
          Read a table
        </PickFile>
        <a className={link} href={`/api/rigs/${rigId}/calendar.ics${place ? `?place=${place}` : ""}`} download>
          Save calendar
        </a>
      </div>
      {said.length > 0 && (
        <ul role="status" className="mt-2">
          {said.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <p className="mt-2 text-muted">
        A table wants the columns “at” and “words”; what is known already is not added twice. A calendar that reads the file again moves
        what it has.
      </p>
    </Panel>
  );
}
