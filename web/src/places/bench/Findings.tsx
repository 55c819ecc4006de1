import { ListChecks } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import { Button, Caution } from "../../ui/controls";
import { Rows } from "../../ui/Rows";
import { Stale } from "../../ui/Stale";
import { useAnswers, useSelection, useStores } from "./benchStores";
import { FixAll } from "./FixAll";
import { Fixes } from "./Fixes";
import { RungWhy, WhyButton, WhyText } from "./Why";

const severities: Record<Schema["Severity"], string> = { fault: "Faults", warning: "Warnings", note: "Notes" };

/** What the rules found, most severe first; a press leads to the place. */
export function Findings() {
  const findings = useAnswers((s) => s.answers?.advice.findings);
  const stale = useAnswers((s) => s.stale);
  const chosen = useSelection((s) => s.findingId);
  const [all, setAll] = useState(false);
  if (!findings) return <p className="p-4 text-muted">Calculating…</p>;
  if (findings.length === 0) return <p className="p-4 text-muted">No issues on this night.</p>;
  return (
    <Stale stale={stale} className="flex min-h-0 grow flex-col">
      {findings.some((f) => f.severity !== "note") && (
        <Button quiet className="m-1.5 mb-0 self-start" onClick={() => setAll(true)}>
          <ListChecks size={17} /> Fix all…
        </Button>
      )}
      {all && <FixAll onClose={() => setAll(false)} />}
      <Rows
        items={findings}
        keyOf={(f) => f.id}
        inSight={findings.findIndex((f) => f.id === chosen)}
        row={(f, i) => (
          <>
            {f.severity !== findings[i - 1]?.severity && <h3 className="px-3 pt-2 pb-1 text-muted">{severities[f.severity]}</h3>}
            <FindingRow finding={f} number={i + 1} chosen={f.id === chosen} />
          </>
        )}
      />
    </Stale>
  );
}

/** One of them, with its number in the list; chosen, it says why and is fixed. */
export function FindingRow({ finding: f, number, chosen }: { finding: Schema["Finding"]; number: number; chosen: boolean }) {
  const { selection } = useStores();
  const print = usePrint();
  const [why, setWhy] = useState(false);
  const size = f.number && print(f.number.value, f.number.quantity);
  const asks = f.why || (f.kind === "firstIce" && f.place?.partId);
  return (
    <div className={`mx-1.5 rounded-md ${chosen ? "bg-sunk shadow-[inset_0_0_0_1.5px_var(--ink)]" : "hover:bg-sunk"}`}>
      <div className="flex items-start">
        <button
          type="button"
          onClick={() => selection.takeFinding(f)}
          aria-expanded={chosen}
          className="min-h-10 min-w-0 grow px-1.5 py-2 text-left"
        >
          <span className="flex items-center gap-2">
            <span
              className={`grid size-6 shrink-0 place-items-center rounded-full border-[1.5px] border-ink font-bold ${chosen ? "bg-ink text-panel" : ""}`}
            >
              {number}
            </span>
            <span className="min-w-0 grow truncate font-semibold">{f.title}</span>
            <span className="shrink-0 text-muted">{f.verb}</span>
            <span className="shrink-0 font-semibold">{size}</span>
          </span>
          {chosen && <span className="mt-1.5 block pl-8 text-muted">{say(f.reason, print)}</span>}
        </button>
        {chosen && asks && <WhyButton of={f.title} open={why} onToggle={() => setWhy(!why)} />}
      </div>
      {chosen && f.caution && (
        <div className="mx-3 mb-2">
          <Caution>{f.caution}</Caution>
        </div>
      )}
      {chosen && <Fixes finding={f} />}
      {chosen && why && (f.why ? <WhyText why={f.why} /> : <RungWhy id={f.place?.partId ?? ""} />)}
    </div>
  );
}
