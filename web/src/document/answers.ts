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

type Ladder = Schema["FreezeLadderAnswer"];

/** The hour that stands for one that is asked for: a long night is read every few hours, and a shorter one has no later ones. */
export const hourRead = ({ stepH, steps }: Pick<Schema["HourlyAnswer"], "stepH" | "steps">, hour: number) =>
  Math.min(Math.round(hour / stepH), steps - 1) * stepH;

/** The ladder with air, water and ice as they are at an hour of its night. */
export function ladderAt(ladder: Ladder, hourly: Schema["HourlyAnswer"], hour: number): Ladder {
  const step = hourRead(hourly, hour) / hourly.stepH;
  const air = new Map(hourly.zones.map((z) => [z.zoneId, z.c]));
  const water = new Map(hourly.rungs.map((r) => [r.id, r]));
  return {
    ...ladder,
    zones: ladder.zones.map((z) => ({ ...z, airC: air.get(z.zoneId)?.[step] ?? z.airC })),
    rungs: ladder.rungs.map((r) => {
      const at = water.get(r.id);
      return { ...r, morningC: at?.c[step] ?? r.morningC, morningIce: at?.ice[step] ?? r.morningIce };
    }),
  };
}
