import type { Schema } from "../api/client";

/**
 * What the colours of a drawing mean: where water goes, what stays after draining, how cold the water is, what air sweeps, or
 * where the heat of the circuits goes.
 */
export type Lens = "water" | "drain" | "cold" | "air" | "heat";

const carried: Record<Schema["Service"], string> = {
  cold: "var(--line-cold)",
  hot: "var(--line-hot)",
  waste: "var(--line-waste)",
  coolant: "var(--line-coolant)",
  fill: "var(--line-fill)",
  vent: "var(--line-air)",
  overflow: "var(--line-air)",
};

/** Colour of a line under a lens, before its water is painted on it. */
export const lineColour = (lens: Lens, service: Schema["Service"]) => (lens === "water" ? carried[service] : "var(--pipe)");
