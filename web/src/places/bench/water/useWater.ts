import { useMemo } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import type { Knob } from "../../../drawing/FlowMarks";
import { useAir } from "../../layup/useAir";
import { useDocument } from "../benchStores";
import { useHeat } from "../heat/useHeat";
import { useAsked, useLast } from "../useAsked";
import { useView } from "../viewStore";
import { ofRig, usedAtFirst, useWaterStore } from "./waterStore";

type Flow = Schema["WaterFlowAnswer"];

/** Where the water goes as the rig is used on the screen, and what can be turned. `compare`: what other bores would give as well. */
export function useWater(on: boolean, compare = false) {
  const id = useDocument((s) => s.id);
  const rig = useDocument((s) => s.rig) as Rig;
  const used = useWaterStore(ofRig(id)) ?? usedAtFirst;
  const tasks = useAsked("tasks", on ? undefined : null).data?.tasks;
  const task = tasks?.find((t) => (used.scenarioId ? t.scenarioId === used.scenarioId : t.kind === used.task)) ?? tasks?.[0];
  const input = useMemo(() => {
    // What was turned may have gone since.
    const { parts } = indexOf(rig);
    const positions = Object.entries(used.turned).flatMap(([partId, position]) => (parts.has(partId) ? [{ id: partId, position }] : []));
    const scenarioId = rig.scenarios.some((s) => s.id === used.scenarioId) ? used.scenarioId : null;
    return { task: used.task, scenarioId, positions, freshShare: used.level, fouled: used.fouled, compare };
  }, [rig, used, compare]);
  const asked = useAsked("waterFlow", on ? input : null);
  const flow = useLast(id, asked.data);
  return { flow: on ? flow : null, stale: !asked.data, tasks, task, used, rig, error: asked.error };
}

/** The position after this one: what is turned goes round them. */
export function nextOf(stock: Schema["StockPart"], position: string) {
  // Half open is for draining; a hand that turns a valve opens or closes it.
  const round = stock.positions.filter((p) => p.id !== "half-open");
  return round[(round.findIndex((p) => p.id === position) + 1) % round.length]?.id ?? position;
}

/** What is turned by a hand in this rig, with what comes out. */
export function useKnobs(rig: Rig, flow: Flow | null, chosen: ReadonlySet<string>): Knob[] {
  const { stock } = useCatalogue();
  const print = usePrint();
  return useMemo(() => {
    if (!flow) return [];
    const { parts } = indexOf(rig);
    const shut = new Set(flow.shutAt);
    const outlets = new Map(flow.outlets.map((o) => [o.partId, o]));
    return flow.settings.flatMap((s): Knob[] => {
      const part = parts.get(s.id);
      const of = part && stock.get(part.stock);
      if (!part || !of) return [];
      const outlet = outlets.get(s.id);
      return [
        {
          partId: s.id,
          name: part.name,
          kind: of.passage === "mixer" ? "tap" : of.passage === "pump" ? "pump" : of.passage === "drain" ? "drain" : "valve",
          on: of.positions.find((p) => p.id === s.position)?.passes ?? false,
          shut: shut.has(s.id),
          figure: outlet?.open ? print(outlet.lPerMin, "flow") : null,
          chosen: chosen.has(s.id) || (outlet?.open ?? false),
        },
      ];
    });
  }, [rig, flow, stock, print, chosen]);
}

/** Turns a tap, valve or pump on to its next position. */
export function useTurn(rig: Rig, flow: Schema["WaterFlowAnswer"] | null) {
  const turn = useWaterStore((s) => s.turn);
  const { stock } = useCatalogue();
  return (partId: string) => {
    const part = indexOf(rig).parts.get(partId);
    const of = part && stock.get(part.stock);
    const now = flow?.settings.find((s) => s.id === partId)?.position;
    if (of && now) turn(rig.id, partId, nextOf(of, now));
  };
}

/**
 * What the drawing shows of the water, air and heat lenses: flow, knobs and what a press on one does; what air sweeps; what circuits do;
 * nothing under another lens.
 */
export function useWaterDrawn(rig: Rig, chosen: ReadonlySet<string>, still: boolean) {
  const lens = useView((s) => s.lens);
  const { flow } = useWater(lens === "water");
  const { air, outletId } = useAir(lens === "air");
  const knobs = useKnobs(rig, flow, chosen);
  const turn = useTurn(rig, flow);
  const { heating, hour } = useHeat(lens === "heat");
  return { heating, hour, flow, knobs, onKnob: still ? undefined : turn, air, outletId };
}
