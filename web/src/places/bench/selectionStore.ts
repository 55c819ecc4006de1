import { createStore, type StoreApi } from "zustand/vanilla";
import type { Schema } from "../../api/client";
import type { Rig } from "../../document/geometry";
import { isThere, keyOf, type Thing } from "../../document/things";

export interface SelectionState {
  /** What is in hand, in every view and list; the last of several leads. */
  things: Thing[];
  findingId: string | null;
  /** Runs and parts that the chosen finding is about: taking one of them leaves it open. */
  about: string[];
  /** The run whose strip is shown: the last that was in hand. */
  stripRunId: string | null;
  /** What is being made, to be taken as soon as it is there. */
  awaited: Thing[];
}

export interface SelectionStore extends StoreApi<SelectionState> {
  take(thing: Thing, more?: boolean): void;
  takeAll(things: Thing[]): void;
  takeFinding(finding: Schema["Finding"]): void;
  nothing(): void;
  takeWhenThere(...things: Thing[]): void;
  /** Lets go of what is no longer there. */
  after(rig: Rig): void;
}

const runOf = (thing: Thing | undefined) => (thing?.kind === "run" || thing?.kind === "point" ? thing.runId : null);

/** What a finding is about: a part where it names one, else a point of a run, else the run. */
export function thingOf(f: Schema["Finding"]): Thing | null {
  const { place } = f;
  if (place?.partId) return { kind: "part", partId: place.partId };
  if (place?.runId && place.pointId) return { kind: "point", runId: place.runId, pointId: place.pointId };
  const run = place?.runId ?? f.runIds[0];
  if (run) return { kind: "run", runId: run };
  return place?.zoneId ? { kind: "zone", zoneId: place.zoneId } : null;
}

/** The run whose profile is shown: one that is selected, or that the selected finding is about; null: none is. */
export const profileRun = (s: SelectionState): string | null =>
  s.findingId !== null || s.things.some((t) => runOf(t) !== null) ? s.stripRunId : null;

export function createSelection(): SelectionStore {
  const store = createStore<SelectionState>(() => ({ things: [], findingId: null, about: [], stripRunId: null, awaited: [] }));
  const set = (things: Thing[], findingId = store.getState().findingId) => {
    const strip = things.map(runOf).findLast((r) => r !== null);
    store.setState({ things, findingId, ...(strip && { stripRunId: strip }) });
  };
  return Object.assign(store, {
    take(thing: Thing, more = false) {
      const { things, about, findingId } = store.getState();
      const within = about.includes(runOf(thing) ?? ("partId" in thing ? thing.partId : ""));
      if (!more) return set([thing], within ? findingId : null);
      const others = things.filter((t) => keyOf(t) !== keyOf(thing));
      set(others.length < things.length ? others : [...things, thing]);
    },
    takeAll: (things: Thing[]) => set(things),
    takeFinding(finding: Schema["Finding"]) {
      const thing = thingOf(finding);
      set(thing ? [thing] : [], finding.id);
      store.setState({ about: [...finding.runIds, finding.place?.runId, finding.place?.partId].filter((id) => id != null) });
      // The strip shows the run that holds the water, also where the thing in hand is a part beside it.
      const run = runOf(thing ?? undefined) ?? finding.runIds[0];
      if (run) store.setState({ stripRunId: run });
    },
    nothing: () => store.setState({ things: [], findingId: null }),
    takeWhenThere: (...awaited: Thing[]) => store.setState({ awaited }),
    after(rig: Rig) {
      const { awaited } = store.getState();
      if (awaited.length > 0 && awaited.every((t) => isThere(rig, t))) {
        store.setState({ awaited: [] });
        set(awaited, null);
      }
      const { things, stripRunId } = store.getState();
      const left = things.filter((t) => isThere(rig, t));
      if (left.length < things.length) store.setState({ things: left });
      if (stripRunId && !rig.runs.some((r) => r.id === stripRunId)) store.setState({ stripRunId: null });
    },
  });
}
