import { create } from "zustand";
import type { Schema } from "../api/client";

interface Settings {
  system: Schema["UnitSystem"];
  theme: "light" | "dark";
  toggleSystem(): void;
  toggleTheme(): void;
}

/** What a reader sets for this device. */
export const useSettings = create<Settings>((set, get) => ({
  system: localStorage.getItem("system") === "usCustomary" ? "usCustomary" : "metric",
  theme: document.documentElement.dataset.theme === "dark" ? "dark" : "light",
  toggleSystem() {
    const system = get().system === "metric" ? "usCustomary" : "metric";
    localStorage.setItem("system", system);
    set({ system });
  },
  toggleTheme() {
    const theme = get().theme === "dark" ? "light" : "dark";
    localStorage.setItem("theme", theme);
    document.documentElement.dataset.theme = theme;
    set({ theme });
  },
}));
