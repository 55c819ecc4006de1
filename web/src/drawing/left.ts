import type { Schema } from "../api/client";
import type { Print } from "../app/units";

type Water = Schema["Conditions"]["water"];

/** How the water system is left for a night, in the words of every screen. */
export const leftWords: Record<Water, string> = { wet: "left full", drained: "left drained", asLeft: "as it was left" };

/** The state of a water system in a word. */
export const stateWord = (left: Schema["LeftAnswer"], print: Print) =>
  left.word === "wet"
    ? "Wet"
    : left.word === "drained"
      ? "Drained"
      : `Protected down to ${left.protectedC == null ? "" : print(left.protectedC, "temperature")}`;

/** A day and time, as the reader writes them. */
export const whenWords = (at: string) =>
  new Date(at).toLocaleString(undefined, { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
