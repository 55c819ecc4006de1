import { useMemo } from "react";
import { useCatalogue } from "../../app/catalogue";
import { useSettings } from "../../app/settings";
import type { Rig } from "../../document/geometry";
import type { Frame, Px, View } from "../../drawing/projection";
import { useStores } from "./benchStores";
import { stepsOf } from "./moving";
import { lastOf, madeOf, placeUnder, type Tie, tieAt } from "./runDrawing";
import { useActions } from "./useActions";

/** Drawing a run by pointer in a view. */
export function useDrawRun() {
  const { document, drawing, selection } = useStores();
  const { stock, catalogue } = useCatalogue();
  const system = useSettings((s) => s.system);
  const actions = useActions();
  return useMemo(() => {
    const now = () => drawing.getState().drawing;
    const finish = (end: Tie) => {
      const [d, rig] = [now(), document.getState().rig];
      const made = d && rig && madeOf(rig, d, end, stock, catalogue?.usualRuns ?? []);
      if (!made) return;
      selection.takeWhenThere(made.thing);
      actions.commit(`Run ${made.name}`, made.edits);
      drawing.end();
    };
    return {
      /** Where the pointer is. */
      point(rig: Rig, view: View, frame: Frame, at: Px, square: boolean) {
        const d = now();
        if (!d) return;
        const last = lastOf(d);
        const over = tieAt(rig, view, frame, at, d.start);
        drawing.point(last ? placeUnder(view, frame, at, last, square, stepsOf(system).plain) : (over?.at ?? null), over, view);
      },
      /** A tap: begins, bends or ends it. */
      tap(rig: Rig, view: View, frame: Frame, at: Px, square: boolean) {
        const d = now();
        if (!d) return;
        const over = tieAt(rig, view, frame, at, d.start);
        const last = lastOf(d);
        if (!last) {
          if (over) drawing.begin(over);
        } else if (over) finish(over);
        else drawing.bend(placeUnder(view, frame, at, last, square, stepsOf(system).plain), view === "plan" ? "zM" : "yM");
      },
      finish,
      /** Its last bend is its end, until it is joined. */
      endLoose() {
        const d = now();
        const at = d?.bends.at(-1);
        if (!d || !at) return;
        drawing.back();
        finish({ kind: "loose", at });
      },
    };
  }, [document, drawing, selection, stock, catalogue, system, actions]);
}
