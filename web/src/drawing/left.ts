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

/** How a water system stands now, in a line: its word, since when, and what was not done. */
export function stateLine(left: Schema["LeftAnswer"], print: Print): string {
  if (!left.at) return left.filled ? `Now full, since ${whenWords(left.filled)}` : "Now full";
  const open = left.notDone.map((p) => p.words);
  const rest = open.length > 2 ? `, ${open.length} steps not done` : open.length > 0 ? `, not done: ${open.join(", ")}` : "";
  return `Now ${stateWord(left, print).toLowerCase()}, ${print(left.staysL, "volume")} in it, ${whenWords(left.at)}${rest}`;
}
