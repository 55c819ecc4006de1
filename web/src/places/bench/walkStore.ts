import { create } from "zustand";
import { persist } from "zustand/middleware";

interface WalkState {
  /** The rig that is walked through, and at which step; null: no walk. */
  walk: { rigId: string; step: number } | null;
  /** The new rig of which the brief's first questions are at hand; null: none. */
  asks: string | null;
  /** The opening picture is not wished on the shelf any more. */
  openingHidden: boolean;
  begin(rigId: string): void;
  go(step: number): void;
  stop(): void;
  ask(rigId: string | null): void;
  hideOpening(): void;
}

/** The first walk, where it stands on this device. */
export const useWalk = create<WalkState>()(
  persist(
    (set, get) => ({
      walk: null,
      asks: null,
      openingHidden: false,
      begin: (rigId) => set({ walk: { rigId, step: 0 } }),
      go(step) {
        const { walk } = get();
        if (walk) set({ walk: { ...walk, step } });
      },
      stop: () => set({ walk: null }),
      ask: (asks) => set({ asks }),
      hideOpening: () => set({ openingHidden: true }),
    }),
    { name: "first-walk", version: 1 },
  ),
);
