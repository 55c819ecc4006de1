import { useCatalogue } from "../../../app/catalogue";
import type { Part, Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { buttonPumps, type EventKind, heatersOf, heatingLines, loopPumps, loopValves, newEvent, type Of, wordsOf } from "../../night/plan";
import { usePlan } from "../../night/usePlan";
import { useAnswers, useSelection } from "../benchStores";

const asked: Partial<Record<EventKind, string>> = {
  fuelOut: "Run out of fuel",
  batteryOut: "Empty the battery",
  pumpFails: "Stop the pump",
  airLocks: "Block with air",
  heatFails: "Stop all heat",
  valveSticks: "Stick a valve shut",
  drive: "Drive off",
  pumpPressed: "Press the button",
};

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
  const has: Partial<Record<EventKind, unknown>> = {
    fuelOut: burns,
    valveSticks: valve,
    drive: engine,
    airLocks: locked,
    pumpPressed: button,
  };
  const kinds = (Object.keys(asked) as EventKind[]).filter((kind) => !(kind in has) || has[kind]);
  const about = (kind: EventKind): Of =>
    kind === "valveSticks"
      ? { partId: valve?.id }
      : kind === "airLocks"
        ? { runId: locked?.id }
        : kind === "pumpPressed"
          ? { partId: button?.id }
          : {};
  const words = (kind: EventKind) =>
    kind === "valveSticks"
      ? `Stick ${valve?.name} shut`
      : kind === "airLocks"
        ? `Block ${locked?.name} with air`
        : kind === "pumpPressed"
          ? `Press the button of ${button?.name}`
          : asked[kind];
  const planned = events.filter((e) => kinds.includes(e.kind));
  // Of several, one by itself: the one that is selected, else the first.
  const alone = (parts: Part[]) => (parts.length > 1 ? of(parts) : undefined);
  const heater = alone(heatersOf(rig, stock));
  const pump = alone(loopPumps(rig, stock));
  return (
    <section aria-label="What fails" className="mt-3">
      <p className="text-muted">What if it fails at {when}?</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {kinds.map((kind) => (
          <Button key={kind} quiet data-fails={kind} onClick={() => planAt(kind, hour, about(kind))}>
            {words(kind)}
          </Button>
        ))}
        {heater && (
          <Button quiet data-fails="heater" onClick={() => planAt("heatFails", hour, { partId: heater.id })}>
            Stop {heater.name} alone
          </Button>
        )}
        {pump && (
          <Button quiet data-fails="pump" onClick={() => planAt("pumpFails", hour, { partId: pump.id })}>
            Stop {pump.name} alone
          </Button>
        )}
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
