import type { Schema } from "../api/client";

/** The only colours: what the water is doing. */
export type WaterColour = "ice" | "near" | "safe" | "warm" | "hot";

/** Colour of water at a temperature, by the core's borders; ice of any amount is ice. */
export function colourOf(numbers: Schema["TradeNumbers"], celsius: number, ice = 0): WaterColour {
  if (ice > 0 || celsius <= 0) return "ice";
  if (celsius < numbers.nearFreezingC) return "near";
  if (celsius < numbers.warmC) return "safe";
  return celsius < numbers.hotC ? "warm" : "hot";
}

export const cssOf = (colour: WaterColour) => `var(--${colour})`;

export const colourNames: Record<WaterColour, string> = {
  ice: "ice",
  near: "near freezing",
  safe: "safe",
  warm: "warm",
  hot: "hot",
};

/** State of a rung in words. */
export const stateWords: Record<Schema["IceState"], string> = {
  safe: "no ice by morning",
  firstIce: "ice by morning",
  blocked: "blocked by morning",
  solid: "solid by morning",
};

/** Whether a rig stands a night, in words. */
export const verdictWords: Record<Schema["Verdict"], string> = {
  passes: "It stands this night",
  passesButForIce: "Ice, but nothing breaks",
  fails: "Ice breaks something",
};
