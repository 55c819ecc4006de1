import { OFFLINE, Problem } from "../api/client";
import type { RigApi } from "../api/rigs";
import { uuid } from "../app/ids";
import type { Conflict, DocumentState, Step } from "./documentState";
import type { Waiting } from "./drafts";

export const newKey = uuid;

/** What goes out together: edits made on one revision; a way back or forward goes alone. */
export function batchOf({ waiting, sending }: DocumentState) {
  if (sending) return sending;
  const [first] = waiting;
  if (!first) return null;
  const other = waiting.findIndex((w, i) => i > 0 && (w.base !== first.base || w.way || first.way));
  return { key: first.key, count: other < 0 ? waiting.length : other };
}

/** A copy of the rig as it was when the first of these was made, with all of them done to it. */
export async function copied(api: RigApi, id: string, waiting: Waiting[], onRefused: (why: string) => void) {
  const [first] = waiting;
  if (!first) return null;
  let copy = await api.copy(id, first.base);
  for (const w of waiting) {
    const answer = await api.save(copy.id, { base: copy.revision, edits: w.edits, key: newKey() }).catch((problem) => {
      // What cannot be done to the copy is told; what the server could not hear is tried again by whoever asks again.
      if (!(problem instanceof Problem) || problem.status !== 400) throw problem;
      onRefused(`${w.what}: ${problem.message}`);
      return null;
    });
    if (answer) copy = { ...copy, revision: answer.revision };
  }
  return copy;
}

const stepsKey = (id: string) => `steps:${id}`;

/** The way back is this window's own, and lasts as long as it does; one that is too long to be kept ends with the window. */
export function keepSteps(id: string, steps: { done: Step[]; undone: Step[] }) {
  try {
    sessionStorage.setItem(stepsKey(id), JSON.stringify(steps));
  } catch {
    // Nothing to be done about it.
  }
}

export const keptSteps = (id: string) => sessionStorage.getItem(stepsKey(id));

/** What a save that was refused changes, and whether there may be more to send. Away: nobody has answered, and it is tried again. */
export function refusalOf(
  caught: unknown,
  items: Waiting[],
  waiting: Waiting[],
): { change: Partial<DocumentState>; more: boolean; away?: true } {
  const problem = caught instanceof Problem ? caught : new Problem(OFFLINE, String(caught), undefined, {}, {});
  const [first] = items as [Waiting];
  const dropped = { sending: null, waiting: waiting.slice(items.length) };
  // The key stays: when the save stood after all, sending it again tells so.
  if (problem.status === OFFLINE || problem.status >= 500 || problem.status === 408)
    return { change: { away: true }, more: false, away: true };
  // Taken off elsewhere. What waits is kept: the rig may be brought back.
  if (problem.status === 404) return { change: { sending: null, missing: problem }, more: false };
  if (problem.status === 409 && typeof problem.extra.edits === "number") {
    // Another window sent the first of these under this name: they stand, and the others go on from there.
    let [count, edits] = [0, 0];
    while (count < items.length && edits < problem.extra.edits) edits += (items[count++] as Waiting).edits.length;
    const same = edits === problem.extra.edits && count < items.length;
    const anew = { sending: null, waiting: [{ ...first, key: newKey() }, ...waiting.slice(1)] };
    return { change: same ? { sending: { key: first.key, count } } : anew, more: true };
  }
  // What was kept of a way back is of no use to anybody: the rig stays as it is.
  if (problem.status === 409 && first.way) {
    const refusal = `That cannot be ${first.way === "undo" ? "undone" : "done again"}: it was changed elsewhere since.`;
    return { change: { ...dropped, refusal }, more: true };
  }
  if (problem.status === 409) {
    const { current, keptAs, clash } = problem.extra as unknown as Conflict;
    return { change: { sending: null, conflict: { current, keptAs: keptAs ?? null, clash: clash ?? [] } }, more: false };
  }
  // One of them cannot be done: each goes for itself, so that the others stand.
  if (items.length > 1) return { change: { sending: { key: newKey(), count: 1 } }, more: true };
  return { change: { ...dropped, refusal: `${first.what}: ${problem.message}` }, more: true };
}
