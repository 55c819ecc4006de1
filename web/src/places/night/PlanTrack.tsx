import { useGesture } from "@use-gesture/react";
import { useRef, useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useClock } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { PickField } from "../../ui/QuantityField";
import { useSize } from "../../ui/useSize";
import { LEFT, RIGHT, xOf } from "./axis";
import { EventForm } from "./EventForm";
import {
  buttonPumps,
  type EventKind,
  endOf,
  eventWords,
  heatingLines,
  loopValves,
  movedEvent,
  newEvent,
  type PlanEvent,
  wordsOf,
} from "./plan";
import { usePlan } from "./usePlan";

const ROW = 40;
const MOST_EVENTS = 40;

/** What happens in the course of the night, each on a line of its own under the hours: its bar is dragged, or its ends. */
export function PlanTrack({ night, rig }: { night: Schema["NightHoursAnswer"]; rig: Rig }) {
  const [box, size] = useSize<HTMLDivElement>();
  const plan = usePlan(rig);
  const { events } = plan;
  const [chosen, setChosen] = useState<string | null>(null);
  const last = night.weather.length - 1;
  const open = events.find((e) => e.id === chosen);
  const { stock } = useCatalogue();
  const valves = loopValves(rig, stock);
  // What needs something that the rig has not is not offered.
  const needs: Partial<Record<EventKind, number>> = {
    open: rig.shell.zones.length,
    valveSticks: valves.length,
    pumpPressed: buttonPumps(rig, stock).length,
    airLocks: heatingLines(rig).length,
  };
  const add = (kind: EventKind) => {
    const made = newEvent(kind, last, {
      zoneId: rig.shell.zones.find((z) => z.kind === "living")?.id ?? rig.shell.zones[0]?.id,
      partId: kind === "valveSticks" ? valves[0]?.id : undefined,
      runId: heatingLines(rig)[0]?.id,
    });
    setChosen(made.id);
    plan.add(made);
  };
  return (
    <section ref={box} className="mt-2 border-t border-rule pt-1" aria-label="Events">
      {size.width > 0 &&
        events.map((e) => (
          <EventRow
            key={e.id}
            event={e}
            rig={rig}
            startHour={night.startHour}
            width={size.width}
            last={last}
            chosen={e.id === chosen}
            onChoose={() => setChosen(e.id === chosen ? null : e.id)}
            onMove={(to, done, was) => (to === null ? plan.letGo() : done ? plan.set(to, was) : plan.show(to, was))}
          />
        ))}
      <div className="flex flex-wrap items-end gap-3 py-1">
        <div className="w-56">
          <PickField
            label={events.length === 0 ? "No events" : "Add"}
            value=""
            disabled={events.length >= MOST_EVENTS}
            options={[
              { value: "", text: "Add event…" },
              ...Object.entries(eventWords)
                .filter(([kind]) => needs[kind as EventKind] !== 0)
                .map(([value, text]) => ({ value, text })),
            ]}
            onCommit={(kind) => kind && add(kind as EventKind)}
          />
        </div>
        {open && (
          <EventForm
            key={open.id}
            event={open}
            rig={rig}
            startHour={night.startHour}
            onChange={(to) => plan.set(to, open)}
            onRemove={() => {
              setChosen(null);
              plan.remove(open);
            }}
          />
        )}
      </div>
    </section>
  );
}

interface RowProps {
  event: PlanEvent;
  rig: Rig;
  startHour: number;
  width: number;
  last: number;
  chosen: boolean;
  onChoose(): void;
  /** Where it is dragged to, and whether that is done; null: it goes back. */
  onMove(event: PlanEvent | null, done: boolean, was: PlanEvent): void;
}

function EventRow({ event, rig, startHour, width, last, chosen, onChoose, onMove }: RowProps) {
  const row = useRef<HTMLDivElement>(null);
  const clock = useClock();
  const until = endOf(event, rig);
  const end = Math.min(last, until ?? last);
  const [from, to] = [xOf(event.atH * 3600, width, last), xOf(end * 3600, width, last)];
  const name = event.kind === "open" ? openWords(event, rig) : wordsOf(event, rig);
  useGesture(
    {
      onDrag: ({ xy: [px], event: raw, memo, first, last: ends, tap, canceled }) => {
        const at = ((px - (row.current?.getBoundingClientRect().left ?? 0) - LEFT) / Math.max(1, width - LEFT - RIGHT)) * last;
        const part =
          memo?.part ?? ((raw.target as Element).closest("[data-part]")?.getAttribute("data-part") as "from" | "until" | "all" | null);
        if (!part) return undefined;
        const was: PlanEvent = memo?.was ?? event;
        const grip = memo?.grip ?? at - was.atH;
        const to = movedEvent(was, part, part === "all" ? at - grip : at, last);
        if (canceled || tap) onMove(null, true, was);
        else if (!first) onMove(to, ends, was);
        return { part, grip, was };
      },
    },
    { target: row, drag: { pointer: { keys: false }, preventDefault: true, filterTaps: true }, eventOptions: { passive: false } },
  );
  const handle = (part: "from" | "until", at: number, value: number) => (
    <div
      data-part={part}
      role="slider"
      tabIndex={0}
      aria-label={`${name}, ${part === "from" ? "from" : "until"}`}
      aria-valuemin={0}
      aria-valuemax={last}
      aria-valuenow={value}
      aria-valuetext={part === "until" && event.untilH == null ? "to the end" : clock(startHour, value * 3600)}
      className="absolute top-0 flex h-full w-10 cursor-ew-resize touch-none items-center justify-center"
      style={{ left: at - 20 }}
      onKeyDown={(e) => {
        const by = e.key === "ArrowRight" || e.key === "ArrowUp" ? 0.25 : e.key === "ArrowLeft" || e.key === "ArrowDown" ? -0.25 : 0;
        if (by === 0) return;
        e.preventDefault();
        onMove(movedEvent(event, part, value + by, last), true, event);
      }}
    >
      <span className="h-6 w-[5px] rounded-sm bg-ink" />
    </div>
  );
  return (
    <div ref={row} className="relative" style={{ height: ROW }} data-event={event.kind}>
      <button
        type="button"
        aria-expanded={chosen}
        onClick={onChoose}
        className="absolute inset-y-0 left-0 truncate text-left underline decoration-dotted underline-offset-4"
        style={{ width: LEFT - 26 }}
      >
        {name}
      </button>
      <div
        data-part="all"
        className={`absolute top-2.5 h-5 cursor-grab touch-none border-2 border-ink ${until == null ? "rounded-l-[5px] border-r-0" : "rounded-[5px]"} ${chosen ? "bg-ink/25" : "bg-ink/10"}`}
        style={{ left: from, width: Math.max(4, to - from) }}
      />
      {event.kind !== "pumpPressed" && handle("until", to, end)}
      {handle("from", from, event.atH)}
      <span
        className="pointer-events-none absolute inset-y-0 right-0 flex items-center text-[13px] whitespace-nowrap text-muted"
        style={{ width: RIGHT - 14 }}
      >
        {clock(startHour, event.atH * 3600).slice(0, 5)}–{until == null ? "" : clock(startHour, until * 3600).slice(0, 5)}
      </span>
    </div>
  );
}

const openWords = (event: PlanEvent, rig: Rig) => {
  const zone = (id: string | null | undefined) => rig.shell.zones.find((z) => z.id === id)?.name ?? "";
  return event.towards ? `${zone(event.zoneId)} open to ${zone(event.towards)}` : `window of ${zone(event.zoneId)} open`;
};
