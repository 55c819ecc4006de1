import { create } from "zustand";
import { persist } from "zustand/middleware";
import { type Hidden, nothingHidden } from "../../document/shown";
import type { Lens } from "../../drawing/lens";

export type RailTab = "findings" | "ladder" | "properties";
/** The view that is large. */
export type Large = "sheet" | "corner";
/** What opens beside the drawing when it is asked for. */
export type NightTab = "tonight" | "improve" | "confidence" | "winter";
export type Pane = "rail" | "weather";

/** How far a reader has zoomed in on the sheet, and where to; null: where the plumbing is. */
export interface Zoom {
  factor: number;
  xM: number | null;
  yM: number | null;
  zM: number | null;
}

export const whole: Zoom = { factor: 1, xM: null, yM: null, zM: null };

interface ViewState {
  lens: Lens;
  tab: RailTab;
  large: Large;
  shown: Record<Pane, boolean>;
  /** What does not belong to the way of what is selected goes pale. */
  follow: boolean;
  nightTab: NightTab;
  zoom: Zoom;
  /** What is left out of the drawings. */
  hidden: Hidden;
  /** The hour of a rig's night that is looked at, on the bench and beside it; null: the morning. */
  look: { rigId: string; hour: number } | null;
  /** Degrees about the upright, and down from the horizon: negative looks from below. */
  corner: { turnDeg: number; tipDeg: number; factor: number };
  setLens(lens: Lens): void;
  setTab(tab: RailTab): void;
  setLarge(large: Large): void;
  toggle(pane: Pane): void;
  setFollow(follow: boolean): void;
  setNightTab(tab: NightTab): void;
  setZoom(zoom: Zoom): void;
  hide(hidden: Hidden): void;
  lookAt(rigId: string, hour: number | null): void;
  turn(to: Partial<ViewState["corner"]>): void;
}

export const cornerAtFirst = { turnDeg: 62, tipDeg: 27, factor: 1 };

/** The hour that is looked at of a rig; null: the morning. */
export const hourOf = (rigId: string) => (s: ViewState) => (s.look?.rigId === rigId ? s.look.hour : null);

/** How this device looks at a rig; remembered from visit to visit but for zooms. */
export const useView = create<ViewState>()(
  persist(
    (set, get) => ({
      lens: "water",
      tab: "findings",
      large: "sheet",
      shown: { rail: true, weather: false },
      follow: true,
      nightTab: "tonight",
      zoom: whole,
      hidden: nothingHidden,
      look: null,
      corner: cornerAtFirst,
      setLens: (lens) => set({ lens }),
      setTab: (tab) => set({ tab }),
      setLarge: (large) => set({ large }),
      toggle: (pane) => set({ shown: { ...get().shown, [pane]: !get().shown[pane] } }),
      setFollow: (follow) => set({ follow }),
      setNightTab: (nightTab) => set({ nightTab }),
      setZoom: (zoom) => set({ zoom }),
      hide: (hidden) => set({ hidden }),
      lookAt: (rigId, hour) => set({ look: hour === null ? null : { rigId, hour } }),
      turn(to) {
        const corner = { ...get().corner, ...to };
        set({ corner: { ...corner, turnDeg: (corner.turnDeg + 360) % 360, tipDeg: Math.min(88, Math.max(-60, corner.tipDeg)) } });
      },
    }),
    {
      name: "bench-view",
      version: 3,
      // The lens of lines is that of water now.
      migrate: (kept) => {
        const state = kept as Pick<ViewState, "lens" | "tab" | "large" | "shown" | "follow">;
        return { ...state, lens: (["drain", "cold", "heat", "air"] as Lens[]).find((l) => l === state.lens) ?? "water" };
      },
      partialize: ({ lens, tab, large, shown, follow }) => ({ lens, tab, large, shown, follow }),
    },
  ),
);
