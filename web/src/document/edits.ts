import type { Schema } from "../api/client";

/** Fields of one thing of the document, named by its path, set to new values. */
export const changed = (thing: string, values: object) => ({ kind: "change", thing, values }) as Schema["Edit"];

/** A thing that comes into a list of the document. */
export const added = (list: string, value: object) => ({ kind: "add", list, value }) as Schema["Edit"];

/** A thing that goes, with what hangs on it. */
export const removed = (thing: string) => ({ kind: "remove", thing }) as Schema["Edit"];

/** As long as a name may be, in UTF-16 units. */
const LONGEST = 80;

/** A name as long as names may be, cut between whole characters as a reader sees them. */
export function nameCut(name: string): string {
  if (name.length <= LONGEST) return name;
  const starts = [...new Intl.Segmenter().segment(name)].map((s) => s.index);
  return name
    .slice(
      0,
      starts.findLast((i) => i <= LONGEST),
    )
    .trimEnd();
}
