import { create } from "zustand";
import type { Schema } from "../api/client";

/** How the shelf is sorted. */
export type ShelfOrder = "recent" | "name" | "worst";

interface Settings {
  system: Schema["UnitSystem"];
  theme: "light" | "dark";
  hours12: boolean;
  /** Who writes in the logbook on this device. */
  who: string;
  setWho(who: string): void;
  shelfOrder: ShelfOrder;
  sortShelf(order: ShelfOrder): void;
  toggleSystem(): void;
  toggleTheme(): void;
  toggleClock(): void;
}

const orders: ShelfOrder[] = ["recent", "name", "worst"];

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
  who: localStorage.getItem("who") ?? "",
  setWho(who) {
    remember("who", who);
    set({ who });
  },
  shelfOrder: orders.find((o) => o === localStorage.getItem("shelf-order")) ?? "recent",
  sortShelf(shelfOrder) {
    remember("shelf-order", shelfOrder);
    set({ shelfOrder });
  },
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
