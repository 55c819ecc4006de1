import { useMemo } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { graded, mirrored } from "../../document/arrange";
import { removed } from "../../document/edits";
import { fragmentOf, inserted, readFragment } from "../../document/fragment";
import { indexOf, type Xyz } from "../../document/geometry";
import { movedBy, nameOf, pathOf, type Thing } from "../../document/things";
import { wayPoints } from "../../document/way";
import { useStores } from "./benchStores";
import { movedByKey } from "./moving";

type Edit = Schema["Edit"];

/** Under this name this device keeps what is carried from rig to rig. */
const CARRIED = "carried";

/** What can be done to the things in hand, by any view, key or button. */
export function useActions() {
  const { document, selection, answers } = useStores();
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
      /** Keeps what is in hand to be put in elsewhere: here, or in another rig. */
      carry() {
        const rig = rigNow();
        const made = rig && fragmentOf(rig, selection.getState().things);
        if (!made) return;
        const text = JSON.stringify(made);
        localStorage.setItem(CARRIED, text);
        void navigator.clipboard?.writeText(text).catch(() => undefined);
      },
      /** Puts in what was kept: beside itself in its own rig, at its place in another. */
      paste() {
        const made = readFragment(localStorage.getItem(CARRIED) ?? "");
        const rig = rigNow();
        if (!made || !rig) return;
        const { edits, things } = inserted(made, { xM: made.rigId === rig.id ? 0.2 : 0, yM: 0, zM: 0 }, newId);
        selection.takeWhenThere(...things);
        commit(`Put in ${made.name}`, edits);
      },
      /** The run in hand gets its fall between its ends; several things get it between the first and the last. */
      evenFall() {
        const { things } = selection.getState();
        commit(`Even fall of ${what(things)}`, graded(things, "even"));
      },
      /** All as high as the first that was taken. */
      level() {
        const { things } = selection.getState();
        commit(`One height for ${what(things)}`, graded(things, "level"));
      },
      /** To the other side of the vehicle. */
      mirrorAcross() {
        const rig = rigNow();
        const { things } = selection.getState();
        if (rig) commit(`${what(things)} to the other side`, mirrored(rig, things));
      },
      /** Removes what is in hand; what hangs on it goes with it. */
      remove() {
        const { things } = selection.getState();
        const joined = (t: Thing) =>
          t.kind === "port" || t.kind === "zone" || (t.kind === "point" && (t.pointId === "from" || t.pointId === "to"));
        const paths = things.filter((t) => !joined(t)).map(pathOf);
        if (paths.length === 0) return;
        const words = `Remove ${what(things)}`;
        selection.nothing();
        commit(words, paths.map(removed));
      },
      /** The next or last point along the whole way of the run, to its drain and back to where its water comes from; part by part where no run is selected. */
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
        if (!("runId" in thing)) return;
        const own = selection.getState().stripRunId ?? thing.runId;
        const points = wayPoints(rig, own, answers.getState().answers?.drainDown.runs ?? []);
        const at = thing.kind === "point" ? points.findIndex((p) => p.runId === thing.runId && p.pointId === thing.pointId) : -1;
        const next = points[at < 0 ? (way > 0 ? 0 : points.length - 1) : at + way];
        if (next) selection.take({ kind: "point", ...next });
        // The profile stays that of the run that is looked at.
        if (next) selection.setState({ stripRunId: own });
      },
    };
  }, [document, selection, answers, stock, system, print]);
}

export type Actions = ReturnType<typeof useActions>;
