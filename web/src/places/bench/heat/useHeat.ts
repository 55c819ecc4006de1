import { useAnswers, useDocument } from "../benchStores";
import { useAsked, useLast } from "../useAsked";
import { hourOf, useView } from "../viewStore";

/** What circuits and pads do on the night, and the number of the hour that is looked at: the morning until another is. */
export function useHeat(on: boolean) {
  const id = useDocument((s) => s.id);
  const asked = useAsked("heating", on ? undefined : null);
  const heating = useLast(id, asked.data);
  const morningS = useAnswers((s) => s.answers?.freezeLadder.morningS);
  const chosen = useView(hourOf(id));
  const hour = Math.round(chosen ?? (morningS ?? 0) / 3600);
  return { heating: on ? heating : null, hour, stale: !asked.data, error: asked.error };
}
