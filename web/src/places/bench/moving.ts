import type { Schema } from "../../api/client";
import type { Xyz } from "../../document/geometry";

type System = Schema["UnitSystem"];

const INCH = 0.0254;

/** How far a key moves, and what a drag snaps to, in the reader's own unit, m. */
export const stepsOf = (system: System) =>
  system === "metric"
    ? { plain: 0.005, fine: 0.001, large: 0.025, words: "5 mm", fineWords: "1 mm" }
    : { plain: INCH / 4, fine: INCH / 16, large: INCH, words: "1/4 in", fineWords: "1/16 in" };

/** To the nearest whole step. */
export const snapped = (m: number, step: number) => Math.round(m / step) * step;

export const snappedPlace = (p: Xyz, step: number, axes: (keyof Xyz)[]): Xyz => {
  const made = { ...p };
  for (const axis of axes) made[axis] = snapped(p[axis], step);
  return made;
};

interface Key {
  key: string;
  shiftKey: boolean;
}

/** What a key means in a view whose right and up are these axes; null for another key. */
export function movedByKey(event: Key, system: System, right: keyof Xyz | null, up: keyof Xyz): Xyz | null {
  const steps = stepsOf(system);
  const step = event.shiftKey ? steps.fine : event.key.startsWith("Page") ? steps.large : steps.plain;
  const by = { xM: 0, yM: 0, zM: 0 };
  switch (event.key) {
    case "ArrowUp":
    case "PageUp":
      by[up] = step;
      return by;
    case "ArrowDown":
    case "PageDown":
      by[up] = -step;
      return by;
    case "ArrowRight":
    case "ArrowLeft":
      if (!right) return null;
      by[right] = event.key === "ArrowRight" ? step : -step;
      return by;
    default:
      return null;
  }
}
