import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Schema } from "../../api/client";

export type Tab = "steps" | "air" | "antifreeze";

interface LayUpState {
  tab: Tab;
  kind: Schema["ProcedureKind"];
  source: Schema["AirSource"];
  /** What the source gives and its tank, where it is another than usual. */
  freeLPerMin: number | null;
  tankL: number | null;
  rounds: number;
  glycol: number;
  drained: boolean;
  /** Chlorine in the product that sanitises, share; in the water, mg/L; how long it stands, h. */
  strength: number;
  mgPerL: number;
  contactH: number;
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
      freeLPerMin: null,
      tankL: null,
      rounds: 2,
      glycol: 0.45,
      drained: true,
      strength: 0.04,
      mgPerL: 50,
      contactH: 2,
      outletId: null,
      set: (to) => set(to),
    }),
    {
      name: "warm-conduit-lay-up",
      version: 1,
      partialize: ({ set, outletId, ...kept }) => kept,
    },
  ),
);

/** What is asked with it. */
export const airInput = (s: LayUpState) => ({
  source: s.source,
  ...(s.freeLPerMin !== null && { freeLPerMin: s.freeLPerMin }),
  ...(s.tankL !== null && { tankL: s.tankL }),
  rounds: s.rounds,
  drained: s.drained,
});
export const fluidInput = (s: LayUpState) => ({ glycol: s.glycol, trapL: null, drained: s.drained });
export const doseInput = (s: LayUpState) => ({ strength: s.strength, mgPerL: s.mgPerL, contactH: s.contactH });
