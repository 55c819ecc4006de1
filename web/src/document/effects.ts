import type { Schema } from "../api/client";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];
type Effect = Schema["Effect"];

/** Steps of a path into a document. The rig's own fields stand at its root. */
const stepsOf = (path: string) => {
  const steps = path.split("/");
  return steps[0] === "rig" ? steps.slice(1) : steps;
};

/** A copy of `node` with what stands at `steps` changed; what does not lie on the way is shared. Fields of objects by name, things in lists by id. */
function changedAt(node: unknown, steps: string[], change: (old: unknown) => unknown): unknown {
  const [step, ...rest] = steps;
  if (step === undefined) return change(node);
  if (Array.isArray(node)) {
    const index = node.findIndex((thing) => thing.id === step);
    return index < 0 ? node : node.with(index, changedAt(node[index], rest, change));
  }
  const fields = (node ?? {}) as Record<string, unknown>;
  return { ...fields, [step]: changedAt(fields[step], rest, change) };
}

type Thing = { id: string } & Record<string, unknown>;
const ORDER = "#order";

/** The document as an effect leaves it: values set, things added and removed, by id. It knows no rule about what an edit does. */
export function applyEffect(rig: Rig, effect: Effect): Rig {
  let made: unknown = rig;
  for (const { list, thing } of effect.removed) {
    const { id } = thing as Thing;
    made = changedAt(made, stepsOf(list), (old) => ((old as Thing[] | undefined) ?? []).filter((t) => t.id !== id));
  }
  for (const { list, thing } of effect.added) {
    made = changedAt(made, stepsOf(list), (old) => {
      const things = [...((old as Thing[] | undefined) ?? []), thing as Thing];
      // All lists stand in order of id but bends, whose order comes with the effect.
      return list.endsWith("/bends") ? things : things.sort((a, b) => (a.id < b.id ? -1 : 1));
    });
  }
  const values = effect.set.filter((s) => !s.path.endsWith(ORDER));
  for (const { path, after } of values) made = changedAt(made, stepsOf(path), () => after ?? null);
  for (const { path, after } of effect.set.filter((s) => s.path.endsWith(ORDER))) {
    const rank = new Map((after as unknown as string[]).map((id, i) => [id, i]));
    made = changedAt(made, stepsOf(path).slice(0, -1), (old) =>
      [...(old as Thing[])].sort((a, b) => (rank.get(a.id) ?? Infinity) - (rank.get(b.id) ?? Infinity)),
    );
  }
  return made as Rig;
}

/** Lists of things on which nothing else hangs: what comes or goes there changes nothing more. */
const alone = /^(plans|plans\/[^/]+\/events|left)$/;
const listOf = (thing: string) => thing.slice(0, Math.max(0, thing.lastIndexOf("/")));

/** What an edit adds or removes where nothing else hangs on it; null for any other. */
function aloneEffect(edit: Edit): Effect | null {
  const none = { set: [], added: [], removed: [] };
  if (edit.kind === "add") {
    const { list, value } = edit as Schema["EditAddThing"];
    return alone.test(list) ? { ...none, added: [{ list, thing: value }] } : null;
  }
  if (edit.kind !== "remove") return null;
  const { thing } = edit as Schema["EditRemoveThing"];
  const id = thing.slice(thing.lastIndexOf("/") + 1);
  return alone.test(listOf(thing)) ? ({ ...none, removed: [{ list: listOf(thing), thing: { id } }] } as unknown as Effect) : null;
}

/**
 * The document with all that can be drawn of edits before the server has answered: values that are set, and what comes and goes
 * by itself. Other edits wait for their effect.
 */
export function drawn(rig: Rig, edits: Edit[]): Rig {
  return edits.reduce((made, edit) => {
    if (edit.kind === "change") {
      const { thing, values } = edit as Schema["EditChangeThing"];
      return changedAt(made, stepsOf(thing), (old) => ({ ...(old as object), ...(values as object) })) as Rig;
    }
    const effect = edit.kind === "restore" ? (edit as Schema["EditRestore"]).effect : aloneEffect(edit);
    return effect ? applyEffect(made, effect) : made;
  }, rig);
}

/** `next`, made of what stands in `before` wherever both say the same: a save that changes nothing that is drawn leaves the same object. */
export function sharedWith<T>(next: T, before: unknown): T {
  if (next === before) return next;
  if (typeof next !== "object" || typeof before !== "object" || !next || !before || Array.isArray(next) !== Array.isArray(before))
    return next;
  const [now, then] = [Object.entries(next), before as Record<string, unknown>];
  const made = now.map(([name, value]) => [name, sharedWith(value, then[name])] as const);
  if (now.length === Object.keys(then).length && made.every(([name, value]) => name in then && value === then[name])) return before as T;
  if (Array.isArray(next)) return made.map(([, value]) => value) as T;
  return Object.fromEntries(made) as T;
}

/** Whether an edit is drawn in full before the server has answered. */
export const isDrawnAtOnce = (edit: Edit) => edit.kind === "change" || edit.kind === "restore" || aloneEffect(edit) !== null;

/** Whether edits may touch what an effect changed: sure for values that are set, and on the safe side for all else. */
export function mayTouch(effect: Effect, edits: Edit[]): boolean {
  const changed = [
    ...effect.set.map((s) => s.path),
    ...[...effect.added, ...effect.removed].map((t) => `${t.list}/${(t.thing as Thing).id}`),
  ];
  return edits.some((edit) => {
    if (edit.kind !== "change") return true;
    const { thing } = edit as Schema["EditChangeThing"];
    return changed.some((path) => path.startsWith(thing) || thing.startsWith(path));
  });
}
