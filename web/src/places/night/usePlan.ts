import { dequal } from "dequal";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { added, changed, removed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { useAnswers, useStores } from "../bench/benchStores";
import { eventWords, type NightPlan, type PlanEvent, planOf } from "./plan";

type Edit = Schema["Edit"];

/** A name that no plan of the rig has yet. */
export function freeName(plans: NightPlan[], wish: string) {
  const taken = new Set(plans.map((p) => p.name));
  return [wish, ...plans.map((_, i) => `${wish} ${i + 2}`)].find((name) => !taken.has(name)) ?? wish;
}

/** The plan of the night that is looked at, and what happens in it, as edits of the document. */
export function usePlan(rig: Rig) {
  const { document, answers } = useStores();
  const planId = useAnswers((s) => s.conditions?.planId);
  const plans = rig.plans ?? [];
  const plan = plans.find((p) => p.id === planId);
  const at = (id: string) => `plans/${planId}/events/${id}`;
  /** What of it is not as it was: as it is drawn it may be on its way already. */
  const moved = (event: PlanEvent, was: PlanEvent): Edit[] => {
    const before = was as unknown as Record<string, unknown>;
    const values = Object.entries(event).filter(([field, value]) => !dequal(value ?? null, before[field] ?? null));
    return values.length > 0 ? [changed(at(event.id), Object.fromEntries(values))] : [];
  };
  return {
    plan,
    events: plan?.events ?? [],
    /** Adds an event; to a plan made for it where the night has none. */
    add(event: PlanEvent) {
      const { conditions } = answers.getState();
      if (!conditions) return;
      const what = `Planned: ${eventWords[event.kind]}`;
      if (plan) document.commit(what, [added(`plans/${plan.id}/events`, event)]);
      else {
        const made = planOf(conditions, newId("plan"), freeName(plans, "Tonight"), [event]);
        document.commit(what, [added("plans", made)]);
        answers.setConditions({ planId: made.id });
      }
    },
    /** Shows an event as it would be, while it is dragged. */
    show: (event: PlanEvent, was: PlanEvent) => document.drag(moved(event, was)),
    set(event: PlanEvent, was: PlanEvent) {
      const edits = moved(event, was);
      if (edits.length > 0) document.commit(`Changed: ${eventWords[event.kind]}`, edits);
      else document.letGo();
    },
    remove: (event: PlanEvent) => document.commit(`Removed: ${eventWords[event.kind]}`, [removed(at(event.id))]),
    letGo: () => document.letGo(),
  };
}
