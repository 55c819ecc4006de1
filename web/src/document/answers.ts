import type { Schema } from "../api/client";

type AnswerChange = Omit<Schema["AnswerChange"], "values"> & { values: object };

/** An answer from the one that is held and what differs. What is the same stays the same object, so that what draws it need not draw again. */
export function changedAnswer<T extends object>(held: T, change: AnswerChange): T {
  const made: Record<string, unknown> = { ...(held as Record<string, unknown>), ...change.values };
  for (const [field, stretches] of Object.entries(change.lists)) {
    const old = made[field] as unknown[];
    made[field] = stretches.flatMap((s) => (s.count > 0 ? old.slice(s.from, s.from + s.count) : [s.item]));
  }
  return made as T;
}
