import { Fragment } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { say, useClock, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { Button, Caution } from "../../../ui/controls";
import { Stale } from "../../../ui/Stale";
import { useAnswers, useDocument, useSelection, useStores } from "../benchStores";
import { FindingRow } from "../Findings";
import { takesElement } from "../inspectorPad";
import { Balance } from "./Balance";
import { EnergyBars } from "./EnergyBars";
import { Fails, usePlanAt } from "./Fails";
import { HotLoops } from "./HotLoops";
import { Modes } from "./Modes";
import { useHeat } from "./useHeat";

type Heating = Schema["HeatingAnswer"];

const heading = "mt-4 font-semibold";

/** The circuits through the night: what gives heat, who gets it, what it costs and what it does not reach. */
export function HeatPanel() {
  const rig = useDocument((s) => s.rig) as Rig;
  const { heating, hour, stale, error } = useHeat(true);
  const night = useAnswers((s) => s.night);
  const clock = useClock();
  const print = usePrint();
  if (error)
    return (
      <p role="alert" className="p-4">
        Couldn't calculate the circuits. {error.message}
      </p>
    );
  if (!heating) return <p className="p-4 text-muted">Calculating where the heat goes…</p>;
  // An engine heats while it has more than the fluid, and is warmed else.
  const heats = (p: Schema["HeatPart"]) => p.kind === "source" || (p.kind === "engine" && (p.heatW[hour] ?? 0) > 0);
  const sources = heating.parts.filter(heats);
  const warmed = heating.parts.filter((p) => !heats(p));
  const nothing = heating.parts.length === 0 && heating.litres === 0;
  const when = night ? clock(night.startHour, hour * 3600) : "";
  return (
    <Stale stale={stale} className="min-h-0 grow overflow-y-auto px-3 pb-3" data-heat-panel>
      {nothing && (
        <p className="mt-3">
          Nothing here carries heat yet. Join a coolant heater, a circulator and radiators or coils with heating lines, or put a pad on a
          tank: select it and press Add a pad.
        </p>
      )}
      <Words words={heating.notes} />
      <OfCircuits rig={rig} />
      {heating.litres > 0 && <Modes rig={rig} />}
      {heating.litres > 0 && night && <Fails hour={hour} when={when} rig={rig} />}
      <Parts name={`Heats the fluid, ${when}`} parts={sources} rig={rig} hour={hour} />
      <Words words={heating.heaters.map((h) => h.words)} />
      <Parts name={`Warms, ${when}`} parts={warmed} rig={rig} hour={hour} />
      <Goes got={heating.got} rig={rig} hour={hour} />
      {warmed.length > 1 && <Balance rig={rig} />}
      {heating.hotWater.length + heating.hotDraws.length > 0 && (
        <>
          <h3 className={heading}>Hot water</h3>
          <Words words={[...heating.hotWater, ...heating.hotDraws].map((h) => h.words)} />
        </>
      )}
      {rig.parts.some((p) => p.stock === "return-pump") && <HotLoops />}
      {heating.traced.length > 0 && (
        <>
          <h3 className={heading}>Traced lines</h3>
          <Words words={heating.traced.map((t) => t.words)} />
        </>
      )}
      <Energy heating={heating} rig={rig} />
      {heating.litres > 0 && (
        <>
          <h3 className={heading}>Fluid</h3>
          <dl className="mt-1 grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
            <dt>in lines and parts</dt>
            <dd className="text-right">{print(heating.litres, "volume")}</dd>
            <dt>glycol to buy, {Math.round(heating.glycol * 100)} %</dt>
            <dd className="text-right">{print(heating.glycolL, "volume")}</dd>
            <dt>freezes at</dt>
            <dd className="text-right">{print(heating.freezesC, "temperature")}</dd>
            <dt>header tank, at least</dt>
            <dd className="text-right">{print(heating.headerL, "volume")}</dd>
          </dl>
          {heating.flowWords && <p className="mt-1 text-muted">{say(heating.flowWords, print)}</p>}
          <div className="mt-3">
            <Caution>
              Hot coolant is under pressure and scalds. Engine coolant is poison: keep a double wall, or food-grade glycol, between it and
              drinking water. Fuel heaters need a flue clear of openings and a carbon monoxide alarm. Local codes and licensed fitters have
              the last word.
            </Caution>
          </div>
        </>
      )}
      <p className="mt-3 text-muted">All figures are estimates. Check them with a thermometer at the last metre.</p>
    </Stale>
  );
}

const kinds: Schema["FindingKind"][] = ["catchesAir", "tooHot", "coolantFreezes", "singleWall", "coldBattery", "pipeUnfit"];

/** What the rules found in the circuits, with its fixes: air that stays at a high point, one wall to drinking water, fluid that freezes. */
function OfCircuits({ rig }: { rig: Rig }) {
  const findings = useAnswers((s) => s.answers?.advice.findings);
  const chosen = useSelection((s) => s.findingId);
  const { runs } = indexOf(rig);
  // Suction lines catch air too, and water pipes are unfit too: those are no matter of heat.
  const here = (f: Schema["Finding"]) => kinds.includes(f.kind) && f.runIds.every((id) => runs.get(id)?.service === "coolant");
  const found = (findings ?? []).flatMap((f, i) => (here(f) ? [{ f, number: i + 1 }] : []));
  if (found.length === 0) return null;
  return (
    <section aria-label="Issues of the circuits" className="-mx-1.5 mt-2" data-circuit-issues={found.length}>
      {found.map(({ f, number }) => (
        <FindingRow key={f.id} finding={f} number={number} chosen={f.id === chosen} />
      ))}
    </section>
  );
}

function Words({ words }: { words: Schema["Sentence"][] }) {
  const print = usePrint();
  if (words.length === 0) return null;
  return (
    <ul className="mt-2 flex flex-col gap-1">
      {words.map((w) => (
        <li key={say(w, print)}>{say(w, print)}</li>
      ))}
    </ul>
  );
}

/** What gives or gets heat at the hour, the most first; a press selects it. */
function Parts({ name, parts, rig, hour }: { name: string; parts: Schema["HeatPart"][]; rig: Rig; hour: number }) {
  const print = usePrint();
  const { selection } = useStores();
  const { stock } = useCatalogue();
  if (parts.length === 0) return null;
  const { parts: byId } = indexOf(rig);
  const padOf = (p: Schema["HeatPart"]) => (takesElement(stock.get(byId.get(p.partId)?.stock ?? "")) ? "element" : "pad");
  const zones = new Map(rig.shell.zones.map((z) => [z.id, z.name]));
  const watts = (p: Schema["HeatPart"]) => Math.abs(p.heatW[hour] ?? 0);
  const sorted = [...parts].sort((a, b) => watts(b) - watts(a));
  return (
    <>
      <h3 className={heading}>{name}</h3>
      <ul aria-label={name}>
        {sorted.map((p) => {
          const inC = p.inC[hour];
          const outC = p.outC[hour];
          const warms = p.kind !== "pad" && p.warms ? (zones.get(p.warms) ?? byId.get(p.warms)?.name) : null;
          return (
            <li key={`${p.partId} ${p.kind}`}>
              <button
                type="button"
                data-heat-part={p.partId}
                className="flex w-full items-baseline gap-2 rounded-md px-2 py-2 text-left hover:bg-sunk"
                onClick={() => selection.take({ kind: "part", partId: p.partId })}
              >
                <span className="min-w-0 grow">
                  {byId.get(p.partId)?.name}
                  <span className="text-muted">
                    {warms ? ` → ${warms}` : p.kind === "pad" ? `, ${padOf(p)}` : ""}
                    {inC != null && outC != null && ` · ${print(inC, "temperature")} in, ${print(outC, "temperature")} out`}
                    {p.lPerMin[hour] ? ` · ${print(p.lPerMin[hour], "flow")}` : ""}
                  </span>
                </span>
                <strong className="whitespace-nowrap font-semibold">{print(watts(p), "power")}</strong>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** Rooms, tanks and lines by what they get over the hour that begins, and what is lost. */
function Goes({ got, rig, hour }: { got: Heating["got"]; rig: Rig; hour: number }) {
  const print = usePrint();
  const { parts, runs } = indexOf(rig);
  const named = { zone: new Map(rig.shell.zones.map((z) => [z.id, z])), part: parts, run: runs };
  const nameOf = (g: Schema["HeatGot"]) => (g.place === "outdoors" ? "lost outdoors" : named[g.place].get(g.id ?? "")?.name);
  const watts = (g: Schema["HeatGot"]) => g.whByHour[Math.min(hour, g.whByHour.length - 1)] ?? 0;
  const shown = got.filter((g) => Math.abs(watts(g)) >= 0.5).sort((a, b) => watts(b) - watts(a));
  if (shown.length === 0) return null;
  return (
    <>
      <h3 className={heading}>Where it goes, over the hour</h3>
      <dl className="mt-1 grid grid-cols-[1fr_auto] gap-x-3 gap-y-1" data-heat-goes>
        {shown.map((g) => (
          <Fragment key={`${g.place} ${g.id}`}>
            <dt>{nameOf(g)}</dt>
            <dd className="text-right">{print(watts(g), "power")}</dd>
          </Fragment>
        ))}
      </dl>
    </>
  );
}

/** What the night costs, hour by hour, against what the brief gives. */
function Energy({ heating, rig }: { heating: Heating; rig: Rig }) {
  const planAt = usePlanAt(rig);
  if (heating.energy.length === 0) return null;
  return (
    <>
      <h3 className={heading}>What the night uses</h3>
      <ul className="mt-1 flex flex-col gap-3" aria-label="Energy">
        {heating.energy.map((e) => (
          <li key={e.kind}>
            <EnergyBars kind={e.kind} words={e.words} bars={e.byHour} empty={(h) => e.emptyS != null && h * 3600 >= e.emptyS} />
            {e.emptyS != null && e.kind !== "mains" && (
              <Button
                quiet
                data-plan-empty={e.kind}
                // To the quarter of an hour before.
                onClick={() => planAt(e.kind === "fuel" ? "fuelOut" : "batteryOut", Math.floor((e.emptyS ?? 0) / 900) / 4)}
              >
                Plan it empty from then on
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
