import type { Schema } from "../api/client";
import type { Print } from "../app/units";

type Water = Schema["Conditions"]["water"];

/** How the water system is left for a night, in the words of every screen. */
export const leftWords: Record<Water, string> = { wet: "full", drained: "drained", asLeft: "as left" };

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

/** What was not done, in words; empty: all was. */
export function notDoneWords({ notDone }: Schema["LeftAnswer"]): string {
  const names = notDone.map((p) => p.words);
  const more = names.length > 3 ? ` and ${names.length - 3} more` : "";
  return names.length === 0 ? "" : `not done: ${names.slice(0, 3).join(", ")}${more}`;
}

/** How a water system stands now, in a line: its word, since when, and what was not done. */
export function stateLine(left: Schema["LeftAnswer"], print: Print): string {
  if (!left.at) return left.filled ? `Now full, since ${whenWords(left.filled)}` : "Now full";
  const now = `Now ${stateWord(left, print).toLowerCase()}, ${print(left.staysL, "volume")} in it, ${whenWords(left.at)}`;
  return [now, notDoneWords(left)].filter(Boolean).join(", ");
}
