import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { added, changed, removed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { useStores } from "../bench/benchStores";

type LeftAct = Schema["LeftAct"];

/** What was done since it was last full. Two windows may both have said so, and one of them before the other filled it. */
function doneSince(acts: LeftAct[]): LeftAct[] {
  const filledAt = Math.max(...acts.filter((a) => a.kind === "filled").map((a) => Date.parse(a.at)));
  return acts.filter((a) => a.kind === "done" && Date.parse(a.at) > filledAt);
}

/** Parts that were opened or handled since the water system was last full. */
export const doneParts = (acts: LeftAct[]): ReadonlySet<string> =>
  new Set(doneSince(acts).flatMap((a) => (a.thing ? [a.thing.replace(/^parts\//, "")] : [])));

/** What was done to the water system since it was last full, as edits of the document. */
export function useLeft(rig: Rig) {
  const { document } = useStores();
  const acts = rig.left ?? [];
  const since = doneSince(acts);
  const actsOf = (partId: string) => since.filter((a) => a.thing === `parts/${partId}`);
  const actOf = (partId: string) => actsOf(partId)[0];
  const done = (partId: string, more: Partial<LeftAct> = {}) =>
    added("left", { id: newId("act"), kind: "done", at: new Date().toISOString(), thing: `parts/${partId}`, ...more });
  return {
    known: acts.length > 0,
    isDone: (partId: string) => actOf(partId) !== undefined,
    jugOf: (partId: string) => actOf(partId)?.outL ?? null,
    /** Says of parts that they were opened or handled, or that they were not after all. */
    tick(what: string, partIds: string[], on: boolean) {
      const edits = on
        ? partIds.filter((id) => !actOf(id)).map((id) => done(id))
        : partIds.flatMap(actsOf).map((a) => removed(`left/${a.id}`));
      if (edits.length > 0) document.commit(on ? `Done: ${what}` : `Not done: ${what}`, edits);
    },
    /** What a jug took: whoever held it there had opened it. */
    measure(partId: string, outL: number | null) {
      const act = actOf(partId);
      document.commit("Measured what came out", [act ? changed(`left/${act.id}`, { outL }) : done(partId, { outL })]);
    },
    /** It is full again: what was done before counts no more. */
    fill() {
      const filled = { id: newId("act"), kind: "filled", at: new Date().toISOString() };
      document.commit("Filled", [...acts.map((a) => removed(`left/${a.id}`)), added("left", filled)]);
    },
  };
}
