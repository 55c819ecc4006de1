import { useCatalogue } from "../../../app/catalogue";
import type { Part, Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { buttonPumps, type EventKind, heatersOf, heatingLines, loopPumps, loopValves, newEvent, type Of, wordsOf } from "../../night/plan";
import { usePlan } from "../../night/usePlan";
import { useAnswers, useSelection } from "../benchStores";

/** A press that plans something. */
interface Act {
  id: string;
  kind: EventKind;
  of?: Of;
  words: string;
}

/** Plans an event of a kind at an hour, in place of the same one at another. */
export function usePlanAt(rig: Rig) {
  const { events, add, set } = usePlan(rig);
  const hours = useAnswers((s) => s.night?.hours) ?? 0;
  return (kind: EventKind, hour: number, of: Of = {}) => {
    const made = { ...newEvent(kind, hours, of), atH: hour, untilH: kind === "drive" ? hour + 2 : null };
    // A button is pressed again, all else happens once.
    const was = events.find(
      (e) => kind !== "pumpPressed" && e.kind === kind && (e.partId ?? undefined) === of.partId && (e.runId ?? undefined) === of.runId,
    );
    if (was) set({ ...was, atH: hour, untilH: made.untilH }, was);
    else add(made);
  };
}

/** What fails at the hour that is looked at, or an engine that heats from then on: one press plans it, and everything else is told of the night with it. */
export function Fails({ hour, when, rig }: { hour: number; when: string; rig: Rig }) {
  const { events, remove } = usePlan(rig);
  const planAt = usePlanAt(rig);
  const { stock } = useCatalogue();
  const chosen = useSelection((s) => s.things.find((t) => t.kind === "part")?.partId);
  const line = useSelection((s) => s.things.find((t) => t.kind === "run")?.runId);
  const findings = useAnswers((s) => s.answers?.advice.findings);
  const valves = loopValves(rig, stock);
  // The one that is selected, else the first.
  const of = (parts: Part[]) => parts.find((p) => p.id === chosen) ?? parts[0];
  const valve = of(valves);
  const burns = rig.parts.some((p) => stock.get(p.stock)?.heat?.fuelLPerH != null);
  const engine = rig.parts.some((p) => stock.get(p.stock)?.heat?.runsC != null);
  // The line that is selected, else one in which air gathers, else the first.
  const lines = heatingLines(rig);
  const locked =
    lines.find((r) => r.id === line) ??
    lines.find((r) => findings?.some((f) => f.kind === "catchesAir" && f.runIds.includes(r.id))) ??
    lines[0];
  const button = of(buttonPumps(rig, stock));
  // Of several, one by itself.
  const alone = (parts: Part[]) => (parts.length > 1 ? of(parts) : undefined);
  const heater = alone(heatersOf(rig, stock));
  const pump = alone(loopPumps(rig, stock));
  const acts: (Act | false | undefined)[] = [
    burns && { id: "fuelOut", kind: "fuelOut", words: "Run out of fuel" },
    { id: "batteryOut", kind: "batteryOut", words: "Empty the battery" },
    { id: "pumpFails", kind: "pumpFails", words: "Stop the pump" },
    pump && { id: "pump", kind: "pumpFails", of: { partId: pump.id }, words: `Stop ${pump.name} alone` },
    locked && { id: "airLocks", kind: "airLocks", of: { runId: locked.id }, words: `Block ${locked.name} with air` },
    { id: "heatFails", kind: "heatFails", words: "Stop all heat" },
    heater && { id: "heater", kind: "heatFails", of: { partId: heater.id }, words: `Stop ${heater.name} alone` },
    valve && { id: "valveSticks", kind: "valveSticks", of: { partId: valve.id }, words: `Stick ${valve.name} shut` },
    engine && { id: "drive", kind: "drive", words: "Drive off" },
    button && { id: "pumpPressed", kind: "pumpPressed", of: { partId: button.id }, words: `Press the button of ${button.name}` },
  ];
  const offered = acts.filter((a) => !!a);
  const planned = events.filter((e) => offered.some((a) => a.kind === e.kind));
  return (
    <section aria-label="What fails" className="mt-3">
      <p className="text-muted">What if it fails at {when}?</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {offered.map((a) => (
          <Button key={a.id} quiet data-fails={a.id} onClick={() => planAt(a.kind, hour, a.of)}>
            {a.words}
          </Button>
        ))}
      </div>
      {planned.map((e) => (
        <p key={e.id} className="mt-1 flex items-center gap-2">
          <span className="grow">
            Planned: {wordsOf(e, rig)}, {e.atH} h after the start.
          </span>
          <Button quiet onClick={() => remove(e)}>
            Take it back
          </Button>
        </p>
      ))}
    </section>
  );
}
