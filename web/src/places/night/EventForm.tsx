import { useCatalogue } from "../../app/catalogue";
import { useClock } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Button } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { buttonPumps, heatersOf, heatingLines, loopPumps, loopValves, type PlanEvent } from "./plan";

const HOUR = 3600;

interface Props {
  event: PlanEvent;
  rig: Rig;
  startHour: number;
  onChange(event: PlanEvent): void;
  onRemove(): void;
}

/** One event as figures: when, how long, and what goes with its kind. */
export function EventForm({ event, rig, startHour, onChange, onRemove }: Props) {
  const clock = useClock();
  const mostH = useCatalogue().limits["event.untilH"]?.most ?? Number.POSITIVE_INFINITY;
  const lasts = event.untilH == null ? null : event.untilH - event.atH;
  const { stock } = useCatalogue();
  // Of which one may be picked: what fails, or is pressed.
  const one =
    event.kind === "heatFails"
      ? heatersOf(rig, stock)
      : event.kind === "pumpFails"
        ? loopPumps(rig, stock)
        : event.kind === "pumpPressed"
          ? buttonPumps(rig, stock)
          : [];
  const valve = rig.parts.find((p) => p.id === event.partId);
  const zones = rig.shell.zones.map((z) => ({ value: z.id, text: z.name }));
  return (
    <fieldset className="flex min-w-0 grow flex-wrap items-end gap-3" aria-label="Event">
      <div className="w-32">
        <QuantityField
          label={`After (${clock(startHour, event.atH * HOUR)})`}
          value={event.atH * HOUR}
          quantity="duration"
          limit="event.atH"
          per={HOUR}
          onCommit={(s) => onChange({ ...event, atH: s / HOUR, ...(lasts !== null && { untilH: Math.min(mostH, s / HOUR + lasts) }) })}
        />
      </div>
      {event.kind !== "pumpPressed" && (
        <div className="w-32">
          <QuantityField
            label="Lasts"
            value={lasts === null ? null : lasts * HOUR}
            quantity="duration"
            limit="event.untilH"
            per={HOUR}
            onCommit={(s) => onChange({ ...event, untilH: s == null ? null : Math.min(mostH, event.atH + s / HOUR) })}
          />
        </div>
      )}
      {(event.kind === "setBack" || event.kind === "away") && (
        <div className="w-32">
          <QuantityField
            label={event.kind === "away" ? "Thermostat, if any" : "Thermostat"}
            value={event.holdC ?? null}
            quantity="temperature"
            limit="event.holdC"
            onCommit={(holdC) => onChange({ ...event, holdC })}
          />
        </div>
      )}
      {event.kind === "drive" && (
        <div className="w-32">
          <QuantityField
            label="Speed"
            value={event.speedMPerS ?? 0}
            quantity="speed"
            limit="event.speedMPerS"
            onCommit={(speedMPerS) => onChange({ ...event, speedMPerS })}
          />
        </div>
      )}
      {one.length > 0 && (
        <div className="w-48">
          <PickField
            label={event.kind === "pumpPressed" ? "Of" : "What fails"}
            value={event.partId ?? ""}
            options={[
              { value: "", text: event.kind === "heatFails" ? "all heat" : "all pumps" },
              ...one.map((p) => ({ value: p.id, text: p.name })),
            ]}
            onCommit={(partId) => onChange({ ...event, partId: partId || null })}
          />
        </div>
      )}
      {event.kind === "airLocks" && (
        <div className="w-48">
          <PickField
            label="Line"
            value={event.runId ?? ""}
            options={heatingLines(rig).map((r) => ({ value: r.id, text: r.name }))}
            onCommit={(runId) => onChange({ ...event, runId })}
          />
        </div>
      )}
      {event.kind === "valveSticks" && (
        <>
          <div className="w-48">
            <PickField
              label="Valve"
              value={event.partId ?? ""}
              options={loopValves(rig, stock).map((p) => ({ value: p.id, text: p.name }))}
              onCommit={(partId) => onChange({ ...event, partId, position: "closed" })}
            />
          </div>
          <div className="w-32">
            <PickField
              label="Sticks"
              value={event.position ?? ""}
              options={(stock.get(valve?.stock ?? "")?.positions ?? []).map((p) => ({ value: p.id, text: p.name }))}
              onCommit={(position) => onChange({ ...event, position })}
            />
          </div>
        </>
      )}
      {event.kind === "open" && (
        <>
          <div className="w-40">
            <PickField
              label="Of"
              value={event.zoneId ?? ""}
              options={zones}
              onCommit={(zoneId) => onChange({ ...event, zoneId, ...(event.towards === zoneId && { towards: null }) })}
            />
          </div>
          <div className="w-40">
            <PickField
              label="To"
              value={event.towards ?? ""}
              options={[{ value: "", text: "outdoors" }, ...zones.filter((z) => z.value !== event.zoneId)]}
              onCommit={(towards) => onChange({ ...event, towards: towards || null })}
            />
          </div>
          <div className="w-28">
            <QuantityField
              label="Area"
              value={event.areaM2 ?? 0}
              quantity="area"
              limit="event.areaM2"
              onCommit={(areaM2) => onChange({ ...event, areaM2 })}
            />
          </div>
          <div className="w-28">
            <QuantityField
              label="Height"
              value={event.heightM ?? 0}
              quantity="length"
              limit="event.heightM"
              onCommit={(heightM) => onChange({ ...event, heightM })}
            />
          </div>
        </>
      )}
      <Button onClick={onRemove}>Delete event</Button>
    </fieldset>
  );
}
