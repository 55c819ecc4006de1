import { create } from "zustand";
import type { Schema } from "../api/client";

interface Settings {
  system: Schema["UnitSystem"];
  theme: "light" | "dark";
  hours12: boolean;
  toggleSystem(): void;
  toggleTheme(): void;
  toggleClock(): void;
}

function remember(name: string, value: string) {
  try {
    localStorage.setItem(name, value);
  } catch {
    // It then lasts as long as the window.
  }
}

/** What a reader sets for this device. */
export const useSettings = create<Settings>((set, get) => ({
  system: localStorage.getItem("system") === "usCustomary" ? "usCustomary" : "metric",
  theme: document.documentElement.dataset.theme === "dark" ? "dark" : "light",
  hours12: localStorage.getItem("clock") === "12",
  toggleClock() {
    const hours12 = !get().hours12;
    remember("clock", hours12 ? "12" : "24");
    set({ hours12 });
  },
  toggleSystem() {
    const system = get().system === "metric" ? "usCustomary" : "metric";
    remember("system", system);
    set({ system });
  },
  toggleTheme() {
    const theme = get().theme === "dark" ? "light" : "dark";
    remember("theme", theme);
    document.documentElement.dataset.theme = theme;
    set({ theme });
  },
}));
