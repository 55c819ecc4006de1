import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Schema } from "../../api/client";

export type Tab = "steps" | "air" | "antifreeze";

interface LayUpState {
  tab: Tab;
  kind: Schema["ProcedureKind"];
  source: Schema["AirSource"];
  rounds: number;
  glycol: number;
  drained: boolean;
  /** The outlet whose air is drawn on the bench; null: all. */
  outletId: string | null;
  set(to: Partial<Omit<LayUpState, "set">>): void;
}

/** With what this reader lays rigs up; remembered on this device. */
export const useLayUp = create<LayUpState>()(
  persist(
    (set) => ({
      tab: "steps",
      kind: "drainLayUp",
      source: "smallCompressor",
      rounds: 2,
      glycol: 0.45,
      drained: true,
      outletId: null,
      set: (to) => set(to),
    }),
    {
      name: "warm-conduit-lay-up",
      version: 1,
      partialize: ({ tab, kind, source, rounds, glycol, drained }) => ({ tab, kind, source, rounds, glycol, drained }),
    },
  ),
);

/** What is asked with it. */
export const airInput = (s: LayUpState) => ({ source: s.source, rounds: s.rounds, drained: s.drained });
export const fluidInput = (s: LayUpState) => ({ glycol: s.glycol, trapL: null, drained: s.drained });
