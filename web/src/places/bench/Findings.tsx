import { useEffect, useRef } from "react";
import type { Schema } from "../../api/client";
import { say, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { useBench } from "./benchStore";
import { RungWhy, WhyButton } from "./WhyButton";

const severities: Record<Schema["Severity"], string> = {
  fault: "Faults",
  warning: "To see to",
  note: "Worth knowing",
};

/** What the studies found, heaviest first; a press leads to the place. */
export function Findings() {
  const findings = useBench((s) => s.answers?.advice.findings);
  const chosen = useBench((s) => s.selection.findingId);
  const ice = useBench((s) => s.answers?.freezeLadder.rungs.filter((r) => r.state !== "safe").length ?? 0);
  if (!findings)
    return (
      <Panel aria-label="Findings" className="grow">
        <p className="p-4 text-muted">Asking…</p>
      </Panel>
    );
  const pools = findings.filter((f) => f.kind === "pool").length;
  return (
    <Panel aria-label="Findings" className="flex grow flex-col">
      <header className="flex h-11 shrink-0 items-center justify-between px-3">
        <h2 className="text-[15px] font-semibold">Findings</h2>
        <p className="text-muted">
          {pools === 1 ? "1 holds water" : `${pools} hold water`} · {ice} freeze
        </p>
      </header>
      {findings.length === 0 ? (
        <p className="px-3 pb-4 text-muted">Nothing to see to on this night: no pool, no ice, no run too flat.</p>
      ) : (
        <ol className="min-h-0 grow overflow-y-auto pb-2">
          {findings.map((f, i) => (
            <FindingRow
              key={f.id}
              finding={f}
              number={i + 1}
              chosen={f.id === chosen}
              heading={f.severity !== findings[i - 1]?.severity ? severities[f.severity] : null}
            />
          ))}
        </ol>
      )}
    </Panel>
  );
}

function FindingRow({
  finding: f,
  number,
  chosen,
  heading,
}: {
  finding: Schema["Finding"];
  number: number;
  chosen: boolean;
  heading: string | null;
}) {
  const select = useBench((s) => s.select);
  const print = usePrint();
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  const go = () =>
    select({
      findingId: f.id,
      runId: f.runIds[0] ?? null,
      pointId: f.place?.pointId ?? null,
      partId: f.place?.partId ?? null,
    });
  const size = f.number && print(f.number.value, f.number.quantity);
  return (
    <li ref={row}>
      {heading && <h3 className="px-3 pt-2 pb-1 text-[13px] text-muted">{heading}</h3>}
      <div className={`mx-1.5 flex items-start rounded-md ${chosen ? "bg-sunk shadow-[inset_0_0_0_1.5px_var(--ink)]" : "hover:bg-sunk"}`}>
        <button type="button" onClick={go} aria-expanded={chosen} className="min-h-10 min-w-0 grow px-1.5 py-2 text-left">
          <span className="flex items-center gap-2">
            <span
              className={`grid size-6 shrink-0 place-items-center rounded-full border-[1.5px] border-ink text-[12px] font-bold ${chosen ? "bg-ink text-panel" : ""}`}
            >
              {number}
            </span>
            <span className="min-w-0 grow truncate font-semibold">{f.title}</span>
            <span className="shrink-0 text-muted">{f.verb}</span>
            <span className="shrink-0 font-semibold">{size}</span>
          </span>
          {chosen && <span className="mt-1.5 block pl-8 text-muted">{say(f.reason, print)}</span>}
        </button>
        {chosen && f.why && <WhyButton why={f.why} of={`${f.title}, ${size}`} />}
        {chosen && f.kind === "firstIce" && <RungWhy id={f.place?.partId ?? ""} of={`${f.title}, ice in ${size}`} />}
      </div>
    </li>
  );
}
