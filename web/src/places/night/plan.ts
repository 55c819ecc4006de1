import { dequal } from "dequal";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import type { Rig } from "../../document/geometry";

export type PlanEvent = Schema["PlanEvent"];
export type EventKind = PlanEvent["kind"];
export type NightPlan = Schema["NightPlan"];
type Conditions = Schema["Conditions"];

/** What each event is called. */
export const eventWords: Record<EventKind, string> = {
  heatOn: "heat on",
  setBack: "heat set back",
  heatFails: "heat fails",
  fuelOut: "fuel is out",
  pumpFails: "loop pump stops",
  pumpPressed: "pump button pressed",
  airLocks: "air stops a heating line",
  valveSticks: "loop valve sticks",
  batteryOut: "battery is empty",
  mains: "on mains",
  open: "door or window open",
  away: "everybody away",
  drive: "driving",
  drained: "drained",
};

const HOUR = 3600;
const usualHours: Partial<Record<EventKind, number>> = { open: 0.5, drive: 6, away: 120, setBack: 8 };

/** Lines of the heating circuits. */
export const heatingLines = (rig: Rig) => rig.runs.filter((r) => r.service === "coolant");

/** Parts that they join. */
const loopParts = (rig: Rig) => {
  const joined = new Set(heatingLines(rig).flatMap((r) => [r.from.part, r.to.part]));
  return rig.parts.filter((p) => joined.has(p.id));
};

/** Valves of the heating circuits, which can stick. */
export const loopValves = (rig: Rig, stock: ReadonlyMap<string, Schema["StockPart"]>) =>
  loopParts(rig).filter((p) => stock.get(p.stock)?.passage === "valve");

/** What can fail by itself: heaters of circuits, and pads. */
export const heatersOf = (rig: Rig, stock: ReadonlyMap<string, Schema["StockPart"]>) =>
  rig.parts.filter((p) => p.pad || stock.get(p.stock)?.heat?.stopsC != null);

/** Pumps of the heating circuits. */
export const loopPumps = (rig: Rig, stock: ReadonlyMap<string, Schema["StockPart"]>) =>
  loopParts(rig).filter((p) => isSwitchable(stock.get(p.stock)));

/** Whether a timer or a button can switch it: a pump of a loop, but no engine. */
export const isSwitchable = (kind: Schema["StockPart"] | undefined) =>
  kind?.flow?.shutoffBar != null && kind.heat != null && kind.heat.runsC == null;

/** Pumps of the heating circuits that are switched by a button. */
export const buttonPumps = (rig: Rig, stock: ReadonlyMap<string, Schema["StockPart"]>) =>
  loopPumps(rig, stock).filter((p) => p.heat?.switch?.kind === "button");

const partWords: Partial<Record<EventKind, string>> = {
  valveSticks: "sticks",
  pumpFails: "stops",
  pumpPressed: "is started by its button",
};

/** An event in words, with the part or line that it is about. */
export const wordsOf = (event: PlanEvent, rig: Rig) => {
  const part = rig.parts.find((p) => p.id === event.partId)?.name;
  const run = rig.runs.find((r) => r.id === event.runId)?.name;
  if (run !== undefined) return `air stops ${run}`;
  return part === undefined ? eventWords[event.kind] : `${part} ${partWords[event.kind] ?? "fails"}`;
};

/** When an event ends, h from the start; null: it does not. A press of a button lasts as long as its pump is set to. */
export const endOf = (event: PlanEvent, rig: Rig) => {
  if (event.kind !== "pumpPressed") return event.untilH ?? null;
  const pumps = rig.parts.filter((p) => p.heat?.switch?.kind === "button" && (event.partId == null || p.id === event.partId));
  return event.atH + Math.max(0, ...pumps.map((p) => p.heat?.switch?.forS ?? 0)) / HOUR;
};

/** What an event is about. */
export type Of = { zoneId?: string | undefined; partId?: string | undefined; runId?: string | undefined };

/** A new event of a kind, from the middle of what is looked at on: of a room, a line, a part that fails, or a valve, which sticks shut. */
export function newEvent(kind: EventKind, hours: number, { zoneId, partId, runId }: Of = {}): PlanEvent {
  const atH = Math.min(4, Math.round(hours) / 2);
  const lasts = usualHours[kind];
  return {
    id: newId("e"),
    kind,
    atH,
    ...(lasts !== undefined && atH + lasts < hours && { untilH: atH + lasts }),
    ...(kind === "setBack" && { holdC: 8 }),
    ...(kind === "drive" && { speedMPerS: 22 }),
    ...(partId !== undefined && { partId, ...(kind === "valveSticks" && { position: "closed" }) }),
    ...(kind === "airLocks" && runId !== undefined && { runId }),
    ...(kind === "open" && zoneId !== undefined && { zoneId, areaM2: 0.2, heightM: 0.4 }),
  };
}

const quarter = (h: number) => Math.round(h * 4) / 4;

/** The event with an end moved, or all of it, within the hours there are: to a quarter of an hour, and never shorter than that. */
export function movedEvent(event: PlanEvent, part: "from" | "until" | "all", toH: number, lastH: number): PlanEvent {
  const until = event.untilH ?? null;
  if (part === "from") return { ...event, atH: Math.max(0, Math.min(quarter(toH), (until ?? lastH) - 0.25)) };
  if (part === "until") {
    const at = Math.max(quarter(toH), event.atH + 0.25);
    return { ...event, untilH: at >= lastH ? null : at };
  }
  const length = until === null ? 0 : until - event.atH;
  const from = Math.max(0, Math.min(quarter(toH), lastH - Math.max(0.25, length)));
  return { ...event, atH: from, ...(until !== null && { untilH: from + length }) };
}

/** How the vehicle is left and what happens then, to be kept under a name. */
export const planOf = (c: Conditions, id: string, name: string, events: PlanEvent[]): NightPlan => ({
  id,
  name,
  startHour: c.startHour,
  hours: c.hours,
  heatOn: c.heatOn,
  drained: c.water === "asLeft" ? null : c.water === "drained",
  insideC: c.insideC ?? null,
  startWaterC: c.startWaterC,
  events,
});

/** What a plan sets of the night; the weather stays as it is. */
export const conditionsOf = (plan: NightPlan): Partial<Conditions> => ({
  startHour: plan.startHour,
  hours: plan.hours,
  heatOn: plan.heatOn,
  water: plan.drained == null ? "asLeft" : plan.drained ? "drained" : "wet",
  insideC: plan.insideC ?? null,
  startWaterC: plan.startWaterC,
  planId: plan.id,
});

/** Whether the vehicle is left as the plan has it. */
export const isLeftAs = (c: Conditions, plan: NightPlan) =>
  dequal(planOf(c, plan.id, plan.name, plan.events), planOf({ ...c, ...conditionsOf(plan) }, plan.id, plan.name, plan.events));

/** What changed between two nights, soonest first: ice that comes or goes, or moves by a quarter of an hour. */
export function changedRungs(before: Schema["NightHoursAnswer"], after: Schema["NightHoursAnswer"]) {
  const was = new Map(before.rungs.map((r) => [r.rung.id, r.rung]));
  const is = new Map(after.rungs.map((r) => [r.rung.id, r.rung]));
  const rows = [...new Set([...was.keys(), ...is.keys()])].map((id) => ({
    id,
    name: (is.get(id) ?? was.get(id))?.name ?? id,
    before: was.get(id)?.atS ?? null,
    after: is.get(id)?.atS ?? null,
  }));
  const never = Number.POSITIVE_INFINITY;
  return rows
    .filter((r) => (r.before === null) !== (r.after === null) || Math.abs((r.before ?? 0) - (r.after ?? 0)) >= HOUR / 4)
    .sort((a, b) => Math.min(a.before ?? never, a.after ?? never) - Math.min(b.before ?? never, b.after ?? never));
}
