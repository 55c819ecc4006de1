import { useMemo } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { courseOf, indexOf, type Xyz } from "../../document/geometry";
import { movedBy, nameOf, type Thing } from "../../document/things";
import { useStores } from "./benchStores";
import { movedByKey } from "./moving";

type Edit = Schema["Edit"];

/** What can be done to the things in hand, by any view, key or button. */
export function useActions() {
  const { document, selection } = useStores();
  const { stock } = useCatalogue();
  const system = useSettings((s) => s.system);
  const print = usePrint();
  return useMemo(() => {
    const rigNow = () => document.getState().rig;
    /** A tank stays where it stands when a pipe at it is pulled. */
    const fixed = (partId: string) => {
      const rig = rigNow();
      const part = rig && indexOf(rig).parts.get(partId);
      return part ? stock.get(part.stock)?.passage === "vessel" : false;
    };
    const what = (things: Thing[]) => {
      const rig = rigNow();
      const [first] = things;
      if (!rig || !first) return "";
      return things.length === 1 ? nameOf(rig, first) : `${things.length} things`;
    };
    const commit = (words: string, edits: Edit[]) => document.commit(words, edits);

    return {
      fixed,
      what,
      commit,
      /** Moves what is in hand, or these. */
      nudge(by: Xyz, things = selection.getState().things) {
        const rig = rigNow();
        if (!rig || things.length === 0) return;
        const far = Math.hypot(by.xM, by.yM, by.zM);
        const way = by.zM > 0 ? "up" : by.zM < 0 ? "down" : "across";
        commit(`${what(things)} ${way} ${print(far, "length")}`, movedBy(rig, things, by, fixed));
      },
      /** A key over a view with these axes; true when it meant something. */
      key(event: { key: string; shiftKey: boolean; preventDefault(): void }, right: keyof Xyz | null, up: keyof Xyz, things?: Thing[]) {
        const by = movedByKey(event, system, right, up);
        if (!by) return false;
        event.preventDefault();
        this.nudge(by, things);
        return true;
      },
      /** Removes what is in hand; what hangs on it goes with it. */
      remove() {
        const { things } = selection.getState();
        const paths = things.flatMap((t) =>
          t.kind === "run"
            ? [`runs/${t.runId}`]
            : t.kind === "part"
              ? [`parts/${t.partId}`]
              : t.kind === "point" && t.pointId !== "from" && t.pointId !== "to"
                ? [`runs/${t.runId}/bends/${t.pointId}`]
                : [],
        );
        if (paths.length === 0) return;
        const words = `Remove ${what(things)}`;
        selection.nothing();
        commit(
          words,
          paths.map((thing) => ({ kind: "remove", thing }) as Edit),
        );
      },
      /** The next or last point along the run in hand, part by part where no run is in hand. */
      walk(way: 1 | -1) {
        const rig = rigNow();
        const thing = selection.getState().things.at(-1);
        if (!rig) return;
        const around = <T>(list: T[], at: number) => list[(at + way + list.length) % list.length];
        if (thing?.kind === "part" || !thing) {
          const next = around(
            rig.parts,
            rig.parts.findIndex((p) => p.id === thing?.partId),
          );
          if (next) selection.take({ kind: "part", partId: next.id });
          return;
        }
        const run = indexOf(rig).runs.get("runId" in thing ? thing.runId : "");
        if (!run) return;
        const course = courseOf(rig, run);
        const next = around(course, thing.kind === "point" ? course.findIndex((p) => p.id === thing.pointId) : way > 0 ? -1 : 0);
        if (next) selection.take({ kind: "point", runId: run.id, pointId: next.id });
      },
    };
  }, [document, selection, stock, system, print]);
}

export type Actions = ReturnType<typeof useActions>;
