import { Moon, Sun } from "lucide-react";
import type { ReactNode } from "react";
import { useSettings } from "./settings";

/** The bar at the top of every place: the mark, what the place puts there, units and light. */
export function AppBar({ children }: { children: ReactNode }) {
  const { system, theme, hours12, toggleSystem, toggleTheme, toggleClock } = useSettings();
  return (
    <header className="flex min-h-11 shrink-0 items-center gap-2 border-b border-rule bg-panel px-3 max-[860px]:flex-wrap max-[860px]:gap-y-0 max-[860px]:pt-1.5">
      <a href="/" className="grid size-10 shrink-0 place-items-center">
        <span className="sr-only">Warm Conduit: all rigs</span>
        <svg width="34" height="24" viewBox="0 0 34 24" aria-hidden="true">
          <path d="M2 9c5-8 9-5 13 4s9 10 17 1" fill="none" stroke="var(--ink)" strokeWidth="3.4" strokeLinecap="round" />
        </svg>
      </a>
      {children}
      <button
        type="button"
        onClick={toggleSystem}
        aria-label={`Units: ${system === "metric" ? "metric" : "US customary"}. Change`}
        className="h-10 shrink-0 rounded-md border border-rule px-3 font-medium hover:border-strong"
      >
        {system === "metric" ? "mm · L · °C" : "in · gal · °F"}
      </button>
      <button
        type="button"
        onClick={toggleClock}
        aria-label={`Clock: ${hours12 ? "12" : "24"} hours. Change`}
        className="h-10 shrink-0 rounded-md border border-rule px-2 font-medium hover:border-strong max-[900px]:hidden"
      >
        {hours12 ? "12 h" : "24 h"}
      </button>
      <button
        type="button"
        onClick={toggleTheme}
        aria-label={theme === "dark" ? "Light screen" : "Dark screen"}
        className="grid size-10 shrink-0 place-items-center rounded-md hover:bg-sunk"
      >
        {theme === "dark" ? <Sun size={18} /> : <Moon size={18} />}
      </button>
    </header>
  );
}
