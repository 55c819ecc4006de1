import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { type EventKind, eventWords, newEvent } from "../../night/plan";
import { usePlan } from "../../night/usePlan";
import { useAnswers } from "../benchStores";

const kinds: EventKind[] = ["fuelOut", "pumpFails", "heatFails"];
const asked: Partial<Record<EventKind, string>> = { fuelOut: "Run out of fuel", pumpFails: "Stop the pump", heatFails: "Stop all heat" };

/** What fails at the hour that is looked at: one press plans it, and everything else is told of the night with it. */
export function Fails({ hour, when, rig }: { hour: number; when: string; rig: Rig }) {
  const { events, add, set, remove } = usePlan(rig);
  const hours = useAnswers((s) => s.night?.hours) ?? 0;
  const planned = events.filter((e) => kinds.includes(e.kind));
  return (
    <section aria-label="What fails" className="mt-3">
      <p className="text-muted">What if it fails at {when}?</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {kinds.map((kind) => (
          <Button
            key={kind}
            quiet
            data-fails={kind}
            onClick={() => {
              const was = planned.find((e) => e.kind === kind);
              if (was) set({ ...was, atH: hour, untilH: null }, was);
              else add({ ...newEvent(kind, hours, undefined), atH: hour });
            }}
          >
            {asked[kind]}
          </Button>
        ))}
      </div>
      {planned.map((e) => (
        <p key={e.id} className="mt-1 flex items-center gap-2">
          <span className="grow">
            Planned: {eventWords[e.kind]}, {e.atH} h after the start.
          </span>
          <Button quiet onClick={() => remove(e)}>
            Let it run
          </Button>
        </p>
      ))}
    </section>
  );
}
