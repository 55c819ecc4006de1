import { create } from "zustand";
import type { Schema } from "../../api/client";

/** A night that was kept to lay another over it, with what it was. */
export interface HeldNight {
  rigId: string;
  what: string;
  night: Schema["NightHoursAnswer"];
}

/** The night that is held to be compared; it is let go with the page. */
export const useHeld = create<{ held: HeldNight | null; hold(night: HeldNight | null): void }>((set) => ({
  held: null,
  hold: (held) => set({ held }),
}));
