import { useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useClock } from "../../app/units";
import { leftWords } from "../../drawing/left";
import { colourNames, colourOf, cssOf, stateWords, verdictWords } from "../../drawing/temperature";
import { Rows } from "../../ui/Rows";
import { Stale } from "../../ui/Stale";
import { RestsOn } from "../night/RestsOn";
import { useAnswers, useDocument, useSelection, useStores } from "./benchStores";
import { RungWhy, WhyButton } from "./Why";

/** Every run and part: what ice breaks first, then the rest by the hour of its first ice; the bar runs from the start of the night to the morning. */
export function Ladder() {
  const ladder = useAnswers((s) => s.answers?.freezeLadder);
  const night = useAnswers((s) => s.night);
  const stale = useAnswers((s) => s.stale);
  const things = useSelection((s) => s.things);
  const rig = useDocument((s) => s.rig);
  const clock = useClock();
  if (!ladder || !night) return <p className="p-4 text-muted">Calculating…</p>;
  const { rungs, morningS, verdict, count } = ladder;
  const freezing = rungs.filter((r) => r.state !== "safe").length;
  const isChosen = (r: Schema["Rung"]) =>
    things.some((t) => (r.runId ? "runId" in t && t.runId === r.runId : t.kind === "part" && t.partId === r.partId));
  return (
    <Stale stale={stale} className="flex min-h-0 grow flex-col">
      <header className="shrink-0 px-3 pt-2.5">
        <h3 className="flex justify-between gap-2 font-semibold">
          First ice, {leftWords[night.water]}
          <span className="font-normal text-muted">
            {freezing === 0 ? "none before morning" : `${freezing} of ${count} before morning`}
          </span>
        </h3>
        <p data-verdict={verdict}>{verdictWords[verdict]}</p>
        {rig && <RestsOn rig={rig} />}
        <p className="mt-1 flex justify-between text-muted">
          <span>{clock(night.startHour, 0)}</span>
          <span>{clock(night.startHour, morningS)}</span>
        </p>
      </header>
      {rungs.length === 0 && <p className="px-3 py-2 text-muted">No water left that could freeze.</p>}
      <Rows
        items={rungs}
        keyOf={(r) => r.id}
        row={(r) => <RungRow rung={r} startHour={night.startHour} morningS={morningS} chosen={isChosen(r)} />}
      />
      <p className="flex shrink-0 flex-wrap gap-x-4 border-t border-rule px-3 pt-2 text-muted">
        <Key fill="var(--near)">water</Key>
        <Key fill="url(#ice-hatch)">ice grows</Key>
        <Key fill="var(--ice)">solid</Key>
      </p>
      <p className="shrink-0 px-3 pb-2 text-muted">Estimates. Trust a thermometer in the coldest corner more.</p>
    </Stale>
  );
}

function Key({ fill, children }: { fill: string; children: string }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width="22" height="8" aria-hidden="true">
        <rect width="22" height="8" fill={fill} />
      </svg>
      {children}
    </span>
  );
}

function RungRow({ rung: r, startHour, morningS, chosen }: { rung: Schema["Rung"]; startHour: number; morningS: number; chosen: boolean }) {
  const { selection } = useStores();
  const clock = useClock();
  const { numbers } = useCatalogue();
  const [why, setWhy] = useState(false);
  const percent = (s: number | null | undefined) => (s == null ? 100 : Math.min(100, (100 * s) / morningS));
  const first = percent(r.firstIceS);
  const solid = percent(r.solidS);
  const colour = colourOf(numbers, Math.max(r.morningC, 0.1));
  const when =
    r.state === "safe"
      ? colour === "near"
        ? "close to it"
        : "not tonight"
      : `${r.breaks ? "breaks" : "ice"} about ${clock(startHour, r.atS ?? 0)}`;
  const press = () => selection.take(r.runId ? { kind: "run", runId: r.runId } : { kind: "part", partId: r.partId ?? "" });
  return (
    <div className={`mx-1.5 rounded-md ${chosen ? "bg-sunk" : "hover:bg-sunk"}`}>
      <div className="flex items-center">
        <button
          type="button"
          onClick={press}
          className="min-h-10 min-w-0 grow px-1.5 py-1 text-left"
          title={`${stateWords[r.state]}, ${colourNames[colour]}`}
        >
          <span className="flex items-baseline gap-2">
            <span className="min-w-0 grow truncate">{r.name}</span>
            <span className={`shrink-0 ${r.state === "safe" ? "text-muted" : "font-semibold"}`}>{when}</span>
          </span>
          {r.breaks && (
            <span className="block text-muted">
              {r.shutIn ? `first ice ${clock(startHour, r.firstIceS ?? 0)}, then shut in: bursts` : "ice breaks it"}
            </span>
          )}
          <svg width="100%" height="8" className="mt-0.5 block" aria-hidden="true" preserveAspectRatio="none">
            <rect width={`${first}%`} height="8" fill={r.state === "safe" ? cssOf(colour) : "var(--near)"} opacity={0.55} />
            <rect x={`${first}%`} width={`${100 - first}%`} height="8" fill="url(#ice-hatch)" />
            {solid < 100 && <rect x={`${solid}%`} width={`${100 - solid}%`} height="8" fill="var(--ice)" />}
          </svg>
        </button>
        <WhyButton of={`first ice, ${r.name}`} open={why} onToggle={() => setWhy(!why)} />
      </div>
      {why && <RungWhy id={r.id} />}
    </div>
  );
}
