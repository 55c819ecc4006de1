import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { clock, usePrint } from "../../app/units";
import { colourOf, cssOf, stateWords, verdictWords } from "../../drawing/temperature";
import { Panel } from "../../ui/controls";
import { useBench } from "./benchStore";
import { RungWhy } from "./WhyButton";

/** Every run and part by the hour of its first ice; the bar runs from the start of the night to the morning. */
export function Ladder() {
  const { answers, conditions, selection, select } = useBench();
  if (!answers || !conditions) return null;
  const { rungs, count, morningS, verdict } = answers.freezeLadder;
  const freezing = rungs.filter((r) => r.state !== "safe").length;
  return (
    <Panel aria-label="Freeze ladder" className="flex grow flex-col">
      <header className="shrink-0 px-3 pt-2.5">
        <h2 className="flex justify-between text-[15px] font-semibold">
          First ice, {conditions.water === "wet" ? "left full" : "drained like this"}
          <span className="font-normal text-muted">{freezing === 0 ? "none" : `${freezing} of ${count}`}</span>
        </h2>
        <p data-verdict={verdict}>{verdictWords[verdict]}</p>
        <p className="mt-1 flex justify-between text-[13px] text-muted">
          <span>{clock(conditions.startHour, 0)}</span>
          <span>{clock(conditions.startHour, morningS / 2)}</span>
          <span>{clock(conditions.startHour, morningS)}</span>
        </p>
      </header>
      <ol className="min-h-0 grow overflow-y-auto pb-1">
        {rungs.map((r) => (
          <RungRow
            key={r.id}
            rung={r}
            conditions={conditions}
            morningS={morningS}
            chosen={(r.runId ?? r.partId) === (r.runId ? selection.runId : selection.partId)}
            onPress={() => select({ runId: r.runId ?? selection.runId, partId: r.partId ?? null })}
          />
        ))}
        {rungs.length === 0 && <p className="px-3 py-2 text-muted">No water is left that could freeze.</p>}
      </ol>
      <p className="shrink-0 border-t border-rule px-3 py-2 text-[13px] text-muted">
        Estimates, for air that stays as it is. A thermometer in the coldest corner outranks them.
      </p>
    </Panel>
  );
}

function RungRow(props: { rung: Schema["Rung"]; conditions: Schema["Conditions"]; morningS: number; chosen: boolean; onPress(): void }) {
  const { rung: r, conditions, morningS } = props;
  const print = usePrint();
  const percent = (s: number | null | undefined) => (s == null ? 100 : Math.min(100, (100 * s) / morningS));
  const first = percent(r.firstIceS);
  const solid = percent(r.solidS);
  const when = r.state === "safe" ? "not tonight" : clock(conditions.startHour, r.firstIceS ?? 0);
  const { numbers } = useCatalogue();
  const colour = cssOf(colourOf(numbers, Math.max(r.morningC, 0.1)));
  return (
    <li className={`mx-1.5 flex items-center rounded-md ${props.chosen ? "bg-sunk" : "hover:bg-sunk"}`}>
      <button type="button" onClick={props.onPress} className="min-h-10 min-w-0 grow px-1.5 py-1 text-left" title={stateWords[r.state]}>
        <span className="flex items-baseline gap-2">
          <span className="min-w-0 grow truncate">{r.name}</span>
          {r.breaks && <span className="shrink-0 text-[13px] text-muted">breaks</span>}
          <span className={`shrink-0 ${r.state === "safe" ? "text-muted" : "font-semibold"}`}>{when}</span>
        </span>
        <svg width="100%" height="8" className="mt-0.5 block" aria-hidden="true" preserveAspectRatio="none">
          <rect width={`${first}%`} height="8" fill={r.state === "safe" ? colour : "var(--near)"} opacity={0.55} />
          <rect x={`${first}%`} width={`${100 - first}%`} height="8" fill="url(#ice-hatch)" />
          {solid < 100 && <rect x={`${solid}%`} width={`${100 - solid}%`} height="8" fill="var(--ice)" />}
        </svg>
      </button>
      <RungWhy
        id={r.id}
        of={`${r.name}: first ice ${r.state === "safe" ? "not before morning" : `after ${print(r.firstIceS, "duration")}`}`}
      />
    </li>
  );
}
