import { useCatalogue } from "../../../app/catalogue";
import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { type EventKind, heatersOf, loopValves, newEvent, wordsOf } from "../../night/plan";
import { usePlan } from "../../night/usePlan";
import { useAnswers, useSelection } from "../benchStores";

const asked: Partial<Record<EventKind, string>> = {
  fuelOut: "Run out of fuel",
  batteryOut: "Empty the battery",
  pumpFails: "Stop the pump",
  heatFails: "Stop all heat",
  valveSticks: "Stick a valve shut",
  drive: "Drive off",
};

/** Plans an event of a kind at an hour, in place of the same one at another. */
export function usePlanAt(rig: Rig) {
  const { events, add, set } = usePlan(rig);
  const hours = useAnswers((s) => s.night?.hours) ?? 0;
  return (kind: EventKind, hour: number, partId?: string) => {
    const made = { ...newEvent(kind, hours, undefined, partId), atH: hour, untilH: kind === "drive" ? hour + 2 : null };
    const was = events.find((e) => e.kind === kind && (e.partId ?? undefined) === partId);
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
  const valves = loopValves(rig, stock);
  // The valve that is selected, else the first.
  const valve = valves.find((v) => v.id === chosen) ?? valves[0];
  const burns = rig.parts.some((p) => stock.get(p.stock)?.heat?.fuelLPerH != null);
  const engine = rig.parts.some((p) => stock.get(p.stock)?.heat?.runsC != null);
  const kinds = (Object.keys(asked) as EventKind[]).filter((kind) =>
    kind === "fuelOut" ? burns : kind === "valveSticks" ? valve : kind === "drive" ? engine : true,
  );
  const planned = events.filter((e) => kinds.includes(e.kind));
  // Of several, one by itself: the one that is selected, else the first.
  const heaters = heatersOf(rig, stock);
  const heater = heaters.length > 1 ? (heaters.find((h) => h.id === chosen) ?? heaters[0]) : undefined;
  return (
    <section aria-label="What fails" className="mt-3">
      <p className="text-muted">What if it fails at {when}?</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {kinds.map((kind) => (
          <Button key={kind} quiet data-fails={kind} onClick={() => planAt(kind, hour, kind === "valveSticks" ? valve?.id : undefined)}>
            {kind === "valveSticks" ? `Stick ${valve?.name} shut` : asked[kind]}
          </Button>
        ))}
        {heater && (
          <Button quiet data-fails="heater" onClick={() => planAt("heatFails", hour, heater.id)}>
            Stop {heater.name} alone
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
