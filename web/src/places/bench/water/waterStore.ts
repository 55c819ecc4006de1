import { create } from "zustand";
import type { Schema } from "../../../api/client";

type Task = Schema["TaskKind"];

interface WaterState {
  rigId: string | null;
  /** What the valves are set for. */
  task: Task;
  /** A scenario of the user's own that goes before it. */
  scenarioId: string | null;
  /** What was turned by hand since, by part. */
  turned: Record<string, string>;
  /** How full all tanks are; null: as they usually are. */
  level: number | null;
  /** Its filters are due for change. */
  fouled: boolean;
  choose(rigId: string, task: Task, scenarioId?: string | null): void;
  turn(rigId: string, partId: string, position: string): void;
  fill(rigId: string, level: number | null): void;
  foul(rigId: string, fouled: boolean): void;
}

const atFirst = { task: "tank" as Task, scenarioId: null, turned: {}, level: null, fouled: false };

/** How a rig is used on the screen: what its valves are set for, and what was turned by hand. Of one rig at a time; nothing of it is saved. */
export const useWaterStore = create<WaterState>()((set, get) => {
  const of = (rigId: string) => (get().rigId === rigId ? {} : { ...atFirst, rigId });
  return {
    rigId: null,
    ...atFirst,
    choose: (rigId, task, scenarioId = null) => set({ ...of(rigId), task, scenarioId, turned: {} }),
    turn: (rigId, partId, position) =>
      set({ ...of(rigId), turned: { ...(get().rigId === rigId ? get().turned : {}), [partId]: position } }),
    fill: (rigId, level) => set({ ...of(rigId), level }),
    foul: (rigId, fouled) => set({ ...of(rigId), fouled }),
  };
});

/** The state of a rig; one that nothing was done to is as at first. */
export const ofRig = (rigId: string) => (s: WaterState) => (s.rigId === rigId ? s : null);
export const usedAtFirst = atFirst;
