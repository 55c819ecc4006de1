import { dequal } from "dequal";
import pRetry from "p-retry";
import { createStore } from "zustand/vanilla";
import { Problem, type Schema } from "../api/client";
import type { RigApi } from "../api/rigs";
import { GUEST_WORDS, isGuest } from "../app/guest";
import type { DocumentState, DocumentStore, Step } from "./documentState";
import type { Drafts, Waiting } from "./drafts";
import { applyEffect, drawn, isDrawnAtOnce, mayTouch, sharedWith } from "./effects";
import { batchOf, copied, keepSteps, keptSteps, newKey, refusalOf } from "./saving";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];

const SAVE_AFTER_MS = 500;
const RETRY = { retries: Number.POSITIVE_INFINITY, minTimeout: 3000, factor: 1 };
const MOST_STEPS = 200;
/** Browsers send no more with a page that goes. */
const MOST_LEAVING = 60_000;

/** One rig in the hands of this window: what is drawn, what waits to be saved, the way back. All that goes to the server goes one after the other. */
export function createDocument(id: string, api: RigApi, drafts: Drafts): DocumentStore {
  const store = createStore<DocumentState>(() => ({
    id,
    rig: null,
    saved: null,
    revision: 0,
    waiting: [],
    previewEdits: [],
    done: [],
    undone: [],
    sending: null,
    away: false,
    refusal: null,
    conflict: null,
    unkept: false,
    missing: null,
  }));
  const { getState: state } = store;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let queue = Promise.resolve();
  let trying: AbortController | null = null;
  let closed = false;
  let dragged: Edit[] | null = null;

  const set = (change: Partial<DocumentState>) => {
    const { saved, waiting, previewEdits } = { ...state(), ...change };
    const redrawn = "saved" in change || "waiting" in change || "previewEdits" in change;
    const rig = redrawn && saved ? sharedWith(drawn(saved, [...waiting.flatMap((w) => w.edits), ...previewEdits]), state().rig) : null;
    store.setState(redrawn ? { ...change, rig } : change);
  };
  /** One thing at a time, in the order in which it was asked for. */
  const inTurn = <T>(task: () => Promise<T>): Promise<T> => {
    const done = queue.then(task);
    queue = done.then(
      () => undefined,
      () => undefined,
    );
    return done;
  };

  function keep() {
    const { waiting, sending, done, undone, unkept } = state();
    const kept = waiting.length === 0 ? drafts.drop(id) : drafts.write(id, { waiting, sending });
    void kept.then(
      () => unkept && set({ unkept: false }),
      () => set({ unkept: waiting.length > 0 }),
    );
    keepSteps(id, { done, undone });
  }

  function saveSoon(ms: number) {
    clearTimeout(timer);
    if (!closed) timer = setTimeout(() => void trySaving(), ms);
  }

  /** Saves, and while the server is away tries again until it takes what waits. An edit that is made meanwhile tries at once. */
  async function trySaving() {
    if (trying) return inTurn(save);
    trying = new AbortController();
    const attempt = async () => {
      await inTurn(save);
      if (state().away && state().waiting.length > 0) throw new Error("The server is away.");
    };
    await pRetry(attempt, { ...RETRY, signal: trying.signal }).catch(() => undefined);
    trying = null;
  }

  async function save(): Promise<void> {
    clearTimeout(timer);
    for (;;) {
      const going = batchOf(state());
      if (!going || state().conflict || state().missing) return;
      set({ sending: going });
      const items = state().waiting.slice(0, going.count);
      const first = items[0] as Waiting;
      await drafts.write(id, { waiting: state().waiting, sending: going }).catch(() => undefined);
      const edits = items.flatMap((w) => w.edits);
      try {
        const answer = await api.save(id, { base: first.base, edits, key: going.key });
        await taken(first, items.length, answer);
      } catch (caught) {
        if (!refused(caught, items)) return;
      }
    }
  }

  /** A save stands: what waited is part of the saved state. */
  async function taken(first: Waiting, count: number, answer: Schema["SavedEdits"]) {
    const { revision, saved, done, undone } = state();
    const made = { what: first.what, base: answer.revision, edits: answer.inverse };
    const steps =
      first.way === "undo"
        ? { undone: [...undone, made] }
        : first.way === "redo"
          ? { done: [...done, made] }
          : { done: [...done, made].slice(-MOST_STEPS), undone: [] };
    // The answer's effect leads here from the base of the edits, which may be older than what is known here.
    const now = first.base === revision ? answer : await api.since(id, revision);
    const rest = state().waiting.slice(count);
    // What was made on top of these edits goes on from there, unless others who came between may have touched the same: then the server says so.
    const onTop = (w: Waiting) =>
      w.base === revision && !w.way && (answer.onto === revision || !mayTouch(now.effect, w.edits)) ? { ...w, base: now.revision } : w;
    set({
      sending: null,
      away: false,
      ...steps,
      saved: applyEffect(saved as Rig, now.effect),
      revision: now.revision,
      waiting: rest.map(onTop),
    });
    keep();
  }

  /** Says why a save was refused; true when there may be more to send. */
  function refused(caught: unknown, items: Waiting[]): boolean {
    const { more, change, away } = refusalOf(caught, items, state().waiting);
    set(change);
    if (!away) keep();
    else if (!trying) saveSoon(RETRY.minTimeout);
    return more;
  }

  async function follow() {
    const { revision, saved } = state();
    if (!saved || state().conflict) return;
    const since = await api.since(id, revision);
    if (since.revision > revision) set({ saved: applyEffect(saved, since.effect), revision: since.revision });
  }

  async function settle(keepThat: "mine" | "theirs" | "both") {
    const { conflict, waiting } = state();
    if (!conflict) return null;
    const copy = keepThat === "both" ? await copied(api, id, waiting, (refusal: string) => set({ refusal })) : null;
    const open = await api.open(id);
    // What was done while that went on is kept with the rest.
    const now = state().waiting;
    const mine = keepThat === "mine" ? now : now.slice(waiting.length);
    set({
      saved: open.rig,
      revision: open.revision,
      conflict: null,
      waiting: mine.map((w) => ({ ...w, key: newKey(), base: open.revision })),
    });
    keep();
    await save();
    return copy?.id ?? null;
  }

  function step(way: "undo" | "redo", from: Step[]) {
    const last = from.at(-1) as Step;
    set({
      [way === "undo" ? "done" : "undone"]: from.slice(0, -1),
      refusal: null,
      waiting: [
        ...state().waiting,
        { key: newKey(), what: `${way === "undo" ? "Undo" : "Redo"}: ${last.what}`, base: last.base, edits: last.edits, way },
      ],
    });
    keep();
    saveSoon(0);
  }

  return Object.assign(store, {
    async open() {
      // A lid may have been closed before the last edits were saved.
      const draft = await drafts.read(id).catch(() => undefined);
      const open = await api.open(id).catch((problem) => {
        set({ missing: problem, waiting: draft?.waiting ?? [] });
        return null;
      });
      if (!open) return;
      const steps = JSON.parse(keptSteps(id) ?? "{}");
      set({
        saved: open.rig,
        revision: open.revision,
        done: steps.done ?? [],
        undone: steps.undone ?? [],
        waiting: draft?.waiting ?? [],
        sending: draft?.sending ?? null,
        missing: null,
      });
      if (draft) await inTurn(save);
    },

    show: (edits: Edit[]) => set({ previewEdits: edits }),
    drag(edits: Edit[]) {
      // A pointer moves more often than what it holds snaps to a new place.
      if (dequal(edits, dragged ?? state().previewEdits)) return;
      if (!dragged)
        setTimeout(() => {
          if (dragged) set({ previewEdits: dragged });
          dragged = null;
        }, 0);
      dragged = edits;
    },
    holds: () => dragged !== null || state().previewEdits.length > 0,
    letGo() {
      dragged = null;
      if (state().previewEdits.length > 0) set({ previewEdits: [] });
    },

    commit(what: string, edits: Edit[]) {
      if (!state().saved || edits.length === 0) return;
      dragged = null;
      if (isGuest()) return set({ previewEdits: [], refusal: GUEST_WORDS });
      set({ previewEdits: [], refusal: null, waiting: [...state().waiting, { key: newKey(), what, base: state().revision, edits }] });
      keep();
      // What cannot be drawn before the server has answered goes at once.
      saveSoon(edits.every(isDrawnAtOnce) ? SAVE_AFTER_MS : 0);
    },

    async undo() {
      const { waiting, sending, undone } = state();
      const last = waiting.at(-1);
      if (last && !last.way && waiting.length > (sending?.count ?? 0)) {
        // Not on its way yet: it is simply taken out.
        set({ waiting: waiting.slice(0, -1), undone: [...undone, { what: last.what, base: last.base, edits: last.edits }] });
        keep();
        return;
      }
      await inTurn(save);
      const { done, conflict } = state();
      if (done.length > 0 && !conflict) step("undo", done);
    },

    async redo() {
      await inTurn(save);
      const { undone, conflict } = state();
      if (undone.length > 0 && !conflict) step("redo", undone);
    },

    async flush() {
      await inTurn(save);
      const { waiting, conflict } = state();
      return waiting.length === 0 && !conflict;
    },

    follow: () => inTurn(follow),

    heard(change: Schema["ShelfChange"] | null) {
      if (change && change.rigId !== id) return;
      if (change?.kind === "removed") {
        set({ missing: new Problem(404, "This rig was deleted.", undefined, {}, {}) });
      } else if (change && state().missing) {
        // Brought back, with what waited for it.
        set({ missing: null });
        void inTurn(follow)
          .then(() => saveSoon(0))
          .catch(() => undefined);
      } else if (!change || change.revision > state().revision) void inTurn(follow).catch(() => undefined);
    },

    settle: (keepThat: "mine" | "theirs" | "both") => inTurn(() => settle(keepThat)),

    leave() {
      const { sending, waiting } = state();
      const going = sending ? null : batchOf(state());
      const first = waiting[0];
      if (!going || !first) return null;
      const ask = { base: first.base, edits: waiting.slice(0, going.count).flatMap((w) => w.edits), key: going.key };
      if (JSON.stringify(ask).length > MOST_LEAVING) return null;
      set({ sending: going });
      return ask;
    },

    close() {
      closed = true;
      trying?.abort();
      clearTimeout(timer);
    },
  });
}
