import type { Schema } from "../../api/client";

export type Entry = Schema["LogEntry"];
export type Kind = Schema["LogKind"];

export const kindNames: Record<Kind, string> = {
  walk: "Procedures",
  litres: "Litres",
  reading: "Readings",
  leak: "Leaks",
  repair: "Repairs",
  care: "Care",
  note: "Notes",
};

/** One of that kind. */
export const kindName: Record<Kind, string> = {
  walk: "Procedure",
  litres: "Litres",
  reading: "Reading",
  leak: "Leak",
  repair: "Repair",
  care: "Care",
  note: "Note",
};

/** Entries as they stand: each with what it corrected, which is shown under it. */
export function standing(entries: Entry[]): { entry: Entry; before: Entry[] }[] {
  const byId = new Map(entries.map((e) => [e.id, e]));
  const corrected = new Set(entries.map((e) => e.corrects).filter(Boolean));
  return entries
    .filter((e) => !corrected.has(e.id))
    .map((entry) => {
      const before: Entry[] = [];
      for (let old = byId.get(entry.corrects ?? ""); old && !before.includes(old); old = byId.get(old.corrects ?? "")) before.push(old);
      return { entry, before };
    });
}

/** Whether an entry has all words of a search in it. */
export function matches(entry: Entry, search: string): boolean {
  const text = [entry.words, entry.who, entry.thingName, entry.at.slice(0, 10), kindName[entry.kind]].join(" ").toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
