const STRETCH = 32;

/** A list in stretches: one of which nothing has changed is not drawn anew, nor looked into. */
export const stretches = <T>(marks: T[]): T[][] =>
  Array.from({ length: Math.ceil(marks.length / STRETCH) }, (_, i) => marks.slice(i * STRETCH, (i + 1) * STRETCH));

export const sameIn =
  <T extends object>(same: (a: T, b: T) => boolean) =>
  (a: { marks: T[] }, b: { marks: T[] }) =>
    a.marks.length === b.marks.length && a.marks.every((m, i) => same(m, b.marks[i] as T));

/** The same in every field, but one. */
export function shallow<T extends object>(a: T, b: T, but?: keyof T) {
  for (const k in a) if (k !== but && a[k] !== b[k]) return false;
  return true;
}
