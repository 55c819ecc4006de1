import { scaleLinear } from "d3-scale";

/** Room for names left of the hours, and for figures right of them, px: the chart and the ladder under it share one axis. */
export const LEFT = 208;
export const RIGHT = 92;

/** The axis of a night of so many hours: from seconds to px. */
export const hoursAxis = (width: number, hours: number) =>
  scaleLinear([0, 3600 * Math.max(1, hours)], [LEFT, Math.max(LEFT, width - RIGHT)]).clamp(true);

/** Place of a time on the axis, px. */
export const xOf = (seconds: number, width: number, hours: number) => hoursAxis(width, hours)(seconds);

/** Hours that are written under the axis: as many as have room. */
export function ticks(hours: number, width: number): number[] {
  const most = Math.max(2, Math.floor((width - LEFT - RIGHT) / 58));
  const step = [1, 2, 3, 4, 6, 12, 24, 48, 72, 120].find((s) => hours / s <= most) ?? 240;
  return Array.from({ length: Math.floor(hours / step) + 1 }, (_, i) => i * step);
}
