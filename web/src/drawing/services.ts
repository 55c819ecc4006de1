import type { Schema } from "../api/client";

/** One line of several that a run is drawn with, from below. */
export interface Stroke {
  width: number;
  dash?: number[];
  cap: "round" | "butt";
  /** In the colour of the paper. */
  hollow?: boolean;
}

/** What a run carries is told by its stroke: cold plain, hot with an inner line, waste broad dashed, vent dotted, fill in long dashes, coolant beaded. */
export const strokes: Record<Schema["Service"], Stroke[]> = {
  cold: [{ width: 3.6, cap: "round" }],
  hot: [
    { width: 5, cap: "round" },
    { width: 1.6, cap: "round", hollow: true },
  ],
  waste: [{ width: 6, dash: [9, 4], cap: "butt" }],
  vent: [{ width: 2.6, dash: [0.1, 5], cap: "round" }],
  fill: [{ width: 3, dash: [16, 3, 2, 3], cap: "butt" }],
  coolant: [
    { width: 2, cap: "round" },
    { width: 6.5, dash: [0.1, 10], cap: "round" },
  ],
  overflow: [{ width: 2, dash: [6, 3], cap: "butt" }],
};

/** What holds a run at a point of it. */
export const fixings: Record<NonNullable<Schema["Fixing"]>, string> = { clip: "clip", grommet: "grommet" };

/** What a run carries, in the builder's words. */
export const services: Record<Schema["Service"], string> = {
  cold: "cold",
  hot: "hot",
  waste: "waste",
  vent: "vent",
  fill: "fill",
  coolant: "coolant",
  overflow: "overflow",
};
