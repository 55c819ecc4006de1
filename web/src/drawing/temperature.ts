import type { Schema } from "../api/client";
import { type Px, pathOf } from "./projection";

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

/**
 * Marks beside the colours, so that none is told by colour alone: a tick across where it is close to freezing, a ring where it is
 * warm, two where it is hot.
 */
export function marksOf(colour: WaterColour, line: Px[], tick: (line: [Px, Px]) => void, ring: (at: Px) => void) {
  if (colour === "ice" || colour === "safe") return;
  line.forEach((b, i) => {
    const a = line[i - 1];
    if (!a) return;
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const count = Math.floor(length / 34);
    const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
    for (let k = 1; k <= count; k++) {
      const [x, y] = [a.x + ((b.x - a.x) * k) / (count + 1), a.y + ((b.y - a.y) * k) / (count + 1)];
      if (colour === "near")
        tick([
          { x: x - 5 * uy, y: y + 5 * ux },
          { x: x + 5 * uy, y: y - 5 * ux },
        ]);
      for (const shift of colour === "warm" ? [0] : colour === "hot" ? [-4, 4] : []) ring({ x: x + shift * ux, y: y + shift * uy });
    }
  });
}

/** The same as one path. */
export function markOf(colour: WaterColour, line: Px[]): string {
  let d = "";
  marksOf(
    colour,
    line,
    (l) => {
      d += pathOf(l);
    },
    ({ x, y }) => {
      d += `M${(x - 3.5).toFixed(1)} ${y.toFixed(1)}a3.5 3.5 0 1 0 7 0a3.5 3.5 0 1 0-7 0`;
    },
  );
  return d;
}

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
  passes: "Safe",
  passesButForIce: "At risk",
  fails: "Freeze damage",
};
