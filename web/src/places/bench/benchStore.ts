import { create } from "zustand";
import { api, data, OFFLINE, Problem, type Schema } from "../../api/client";
import { changedAnswer } from "../../document/answers";
import { listenChanges } from "../../document/changes";
import { applyEffect, drawn } from "../../document/effects";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];
type Conditions = Schema["Conditions"];

/** What the bench wants to know of a rig. */
export const wanted = ["drainDown", "freezeLadder", "advice"] as const;
export type Answers = Required<Pick<Schema["AnswersAnswer"]["answers"], (typeof wanted)[number]>>;

/** The two lenses over the drawings. */
export type Lens = "drain" | "cold";

/** Where the document stands against the server. */
export type SaveState = "saved" | "unsaved" | "saving" | "offline" | "refused";

/** What is in hand: a run, one of its points, a part, a finding. */
export interface Selection {
  runId: string | null;
  pointId: string | null;
  partId: string | null;
  findingId: string | null;
}

/** Edits that wait to be saved, in the words of the screen on which they were made. */
export interface Waiting {
  what: string;
  edits: Edit[];
}

/** A way back or forward: edits, and the revision they belong to. */
interface Step {
  base: number;
  edits: Edit[];
}

interface Conflict {
  current: number;
  keptAs: number | null;
  clash: string[];
}

interface Bench {
  id: string | null;
  /** The document as it is drawn: the saved one, what waits, and what is under the finger. */
  rig: Rig | null;
  /** The newest saved state that is known here, and its revision. */
  saved: Rig | null;
  revision: number;
  waiting: Waiting[];
  preview: Edit[];
  canUndo: boolean;
  canRedo: boolean;
  saveState: SaveState;
  refusal: string | null;
  conflict: Conflict | null;
  conditions: Conditions | null;
  answers: Answers | null;
  /** The answers are about an earlier state than the one that is drawn. */
  stale: boolean;
  studyProblem: string | null;
  lens: Lens;
  selection: Selection;
  load(id: string): Promise<void>;
  setConditions(change: Partial<Conditions>): void;
  setLens(lens: Lens): void;
  select(selection: Partial<Selection>): void;
  /** Shows edits without keeping them: while dragging. */
  show(edits: Edit[]): void;
  /** Keeps edits. */
  commit(what: string, edits: Edit[]): void;
  cancelPreview(): void;
  move(way: "undo" | "redo"): Promise<void>;
  resolveConflict(keep: "mine" | "theirs" | "both"): Promise<string | null>;
}

const nothing: Selection = { runId: null, pointId: null, partId: null, findingId: null };
const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;
const MOST_STEPS = 200;
const draftKey = (id: string) => `draft:${id}`;
const nightKey = (id: string) => `night:${id}`;
const stepsKey = (id: string) => `steps:${id}`;

/** What belongs to one visit to a rig, and to no screen. */
let saveTimer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> | null = null;
let asking: AbortController | null = null;
let askAgain = false;
/** The last answers about a saved revision: later ones come as what differs from them. */
let held: { id: string; revision: number; night: string; answers: Answers } | null = null;
let undone: Step[] = [];
let done: Step[] = [];

/** The rig on the bench: the working document, the night it is asked about, and the answers. */
export const useBench = create<Bench>((set, get) => {
  /** Draws anew from the parts of the state. */
  const redraw = (change: Partial<Bench> = {}) => {
    const { saved, waiting, preview } = { ...get(), ...change };
    const rig = saved && drawn(saved, [...waiting.flatMap((w) => w.edits), ...preview]);
    set({ ...change, rig, canUndo: waiting.length > 0 || done.length > 0, canRedo: waiting.length === 0 && undone.length > 0 });
  };
  const pending = () => [...get().waiting.flatMap((w) => w.edits), ...get().preview];

  // One question is under way at a time; while it is, only the newest one after it counts.
  async function ask() {
    set({ stale: true });
    if (asking) {
      askAgain = true;
      return;
    }
    do {
      askAgain = false;
      const { id, revision, conditions } = get();
      if (!id || !conditions) break;
      asking = new AbortController();
      try {
        const edits = pending();
        const night = JSON.stringify(conditions);
        const known = held?.id === id && held.night === night ? held : null;
        const body = { id, base: revision, edits, conditions, wanted: [...wanted], since: known?.revision };
        const told = data(await api.POST("/api/answers", { body, signal: asking.signal }));
        const answers = { ...told.answers } as Record<string, object>;
        for (const [name, change] of Object.entries(told.changed))
          answers[name] = changedAnswer(known?.answers[name as keyof Answers] as object, change);
        if (edits.length === 0) held = { id, revision, night, answers: answers as unknown as Answers };
        if (get().id === id) set({ answers: answers as unknown as Answers, studyProblem: null, stale: askAgain });
      } catch (problem) {
        if (get().id === id) set({ studyProblem: problem instanceof Problem ? problem.message : String(problem) });
      }
    } while (askAgain);
    asking = null;
  }

  function keepDraft() {
    const { id, revision, waiting } = get();
    if (!id) return;
    if (waiting.length === 0) localStorage.removeItem(draftKey(id));
    else localStorage.setItem(draftKey(id), JSON.stringify({ base: revision, waiting }));
    // The way back is this window's own, and lasts as long as it does.
    sessionStorage.setItem(stepsKey(id), JSON.stringify({ done, undone }));
  }

  function saveSoon(ms = SAVE_AFTER_MS) {
    clearTimeout(saveTimer);
    saveTimer = setTimeout(() => void save(), ms);
  }

  /** Sends edits; on success the saved state is the new one. Throws a {@link Problem}. */
  async function send(id: string, base: number, edits: Edit[]) {
    const saved = data(await api.POST("/api/rigs/{id}/edits", { params: { path: { id } }, body: { base, edits } }));
    return saved;
  }

  function refused(caught: unknown, retry: boolean) {
    const problem = caught instanceof Problem ? caught : new Problem(OFFLINE, String(caught), undefined, {}, {});
    if (problem.status === 409) {
      const { current, keptAs, clash } = problem.extra as unknown as Conflict;
      set({ saveState: "refused", conflict: { current, keptAs: keptAs ?? null, clash: clash ?? [] } });
    } else if (problem.status === OFFLINE || problem.status >= 500) {
      set({ saveState: "offline", refusal: problem.status === OFFLINE ? null : problem.title });
      if (retry) saveSoon(RETRY_AFTER_MS);
    } else set({ saveState: "refused", refusal: problem.message });
  }

  async function save(): Promise<void> {
    clearTimeout(saveTimer);
    if (saving) await saving;
    const { id, revision, waiting, conflict } = get();
    if (!id || waiting.length === 0 || conflict) return;
    set({ saveState: "saving" });
    saving = (async () => {
      try {
        const answer = await send(
          id,
          revision,
          waiting.flatMap((w) => w.edits),
        );
        if (get().id !== id) return;
        done.push({ base: answer.revision, edits: answer.inverse });
        done.splice(0, done.length - MOST_STEPS);
        undone = [];
        const left = get().waiting.slice(waiting.length);
        redraw({
          saved: applyEffect(get().saved as Rig, answer.effect),
          revision: answer.revision,
          waiting: left,
          saveState: left.length === 0 ? "saved" : "unsaved",
          refusal: null,
        });
        keepDraft();
        if (left.length > 0) saveSoon();
        // What others saved meanwhile may have come along; and the next drag's answers are told from these.
        void ask();
      } catch (caught) {
        refused(caught, true);
      }
    })();
    await saving;
    saving = null;
  }

  /** Brings the saved state up to the newest revision, unless something here waits: then the save will say what clashes. */
  async function follow() {
    const { id, revision, saved, waiting, preview } = get();
    if (!id || !saved || waiting.length > 0 || preview.length > 0 || saving) return;
    const since = data(await api.GET("/api/rigs/{id}/since/{revision}", { params: { path: { id, revision } } }));
    const now = get();
    if (now.id !== id || now.revision !== revision || now.waiting.length > 0 || now.preview.length > 0) return;
    if (since.revision === revision) return;
    redraw({ saved: applyEffect(saved, since.effect), revision: since.revision });
    void ask();
  }

  listenChanges((change) => {
    const { id, revision } = get();
    if (!id || (change && (change.rigId !== id || change.revision <= revision))) return;
    follow().catch(() => undefined);
  });

  return {
    id: null,
    rig: null,
    saved: null,
    revision: 0,
    waiting: [],
    preview: [],
    canUndo: false,
    canRedo: false,
    saveState: "saved",
    refusal: null,
    conflict: null,
    conditions: null,
    answers: null,
    stale: false,
    studyProblem: null,
    lens: "drain",
    selection: nothing,

    async load(id) {
      await save();
      asking?.abort();
      set({ id: null, rig: null, saved: null, answers: null, waiting: [], preview: [], conflict: null, selection: nothing, lens: "drain" });
      const open = data(await api.GET("/api/rigs/{id}", { params: { path: { id } } }));
      const steps = JSON.parse(sessionStorage.getItem(stepsKey(id)) ?? "{}");
      done = steps.done ?? [];
      undone = steps.undone ?? [];
      redraw({ id, saved: open.rig, revision: open.revision, saveState: "saved", refusal: null });
      const night = localStorage.getItem(nightKey(id));
      const brief = data(await api.POST("/api/answers", { body: { id, base: open.revision, wanted: ["standing"] } }));
      set({ conditions: night ? { ...brief.conditions, ...JSON.parse(night) } : brief.conditions });
      const draft = localStorage.getItem(draftKey(id));
      if (draft) {
        // A lid was closed before the last edits were saved. They were made on the revision that they name.
        const { base, waiting } = JSON.parse(draft) as { base: number; waiting: Waiting[] };
        redraw({ waiting, revision: base, saveState: "unsaved" });
        if (base !== open.revision) {
          const then = await api.GET("/api/rigs/{id}/revisions/{number}", { params: { path: { id, number: base } } }).catch(() => null);
          if (then?.data) redraw({ saved: then.data });
          else redraw({ revision: open.revision });
        }
        await save();
      }
      await ask();
      const first = get().answers?.advice.findings.find((f) => f.runIds.length > 0);
      if (first && !get().selection.runId) set({ selection: { ...nothing, runId: first.runIds[0] ?? null, findingId: first.id } });
    },

    setConditions(change) {
      const { id, conditions } = get();
      if (!id || !conditions) return;
      const next = { ...conditions, ...change };
      localStorage.setItem(nightKey(id), JSON.stringify(next));
      set({ conditions: next });
      void ask();
    },

    setLens: (lens) => set({ lens }),
    select: (selection) => set({ selection: { ...nothing, ...selection } }),

    show(edits) {
      redraw({ preview: edits });
      void ask();
    },

    commit(what, edits) {
      if (!get().saved) return;
      redraw({ preview: [], waiting: [...get().waiting, { what, edits }], saveState: "unsaved" });
      keepDraft();
      void ask();
      saveSoon();
    },

    cancelPreview() {
      if (get().preview.length === 0) return;
      redraw({ preview: [] });
      void ask();
    },

    async move(way) {
      await save();
      const { id, waiting, conflict } = get();
      const from = way === "undo" ? done : undone;
      const step = from.at(-1);
      if (!id || !step || waiting.length > 0 || conflict) return;
      set({ saveState: "saving" });
      try {
        // The way back is carried to the newest state, and clashes like any edit: it never takes back another window's.
        const answer = await send(id, step.base, step.edits);
        from.pop();
        (way === "undo" ? undone : done).push({ base: answer.revision, edits: answer.inverse });
        keepDraft();
        await follow();
        redraw({ saveState: "saved" });
      } catch (caught) {
        refused(caught, false);
        // What was kept of it is of no use to anybody: the rig stays as it is.
        const { conflict: clash } = get();
        if (clash)
          set({
            conflict: null,
            saveState: "refused",
            refusal: `That cannot be ${way === "undo" ? "undone" : "done again"}: it was changed elsewhere since.`,
          });
      }
    },

    async resolveConflict(keep) {
      const { id, conflict, waiting } = get();
      if (!id || !conflict) return null;
      if (keep === "both" && conflict.keptAs !== null) {
        const copy = data(
          await api.POST("/api/rigs/{id}/revisions/{number}/copy", { params: { path: { id, number: conflict.keptAs } }, body: {} }),
        );
        redraw({ waiting: [], conflict: null });
        keepDraft();
        return copy.id;
      }
      const open = data(await api.GET("/api/rigs/{id}", { params: { path: { id } } }));
      redraw({
        saved: open.rig,
        revision: open.revision,
        conflict: null,
        waiting: keep === "mine" ? waiting : [],
        saveState: keep === "mine" ? "unsaved" : "saved",
      });
      keepDraft();
      if (keep === "mine") await save();
      await ask();
      return null;
    },
  };
});

// A lid closed in mid-edit: the edits are on this device already; this asks the server to have them too.
window.addEventListener("pagehide", () => {
  const { id, revision, waiting } = useBench.getState();
  if (!id || waiting.length === 0) return;
  void fetch(`/api/rigs/${id}/edits`, {
    method: "POST",
    keepalive: true,
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ base: revision, edits: waiting.flatMap((w) => w.edits) }),
  }).then((answer) => answer.ok && localStorage.removeItem(draftKey(id)));
});

/** The runs of a rig by id, and its parts: small enough to be looked up by walking. */
export const runOf = (rig: Rig, id: string | null) => rig.runs.find((r) => r.id === id);
export const partOf = (rig: Rig, id: string | null) => rig.parts.find((p) => p.id === id);

/** The edit that raises a bend, or a part with all its ports, by `byM`; heights are kept to the tenth of a millimetre. */
export function raised(rig: Rig, point: Handle, byM: number): Edit {
  const lifted = (p: Schema["Point3"]) => ({ ...p, zM: Math.round((p.zM + byM) * 10000) / 10000 });
  if (point.kind === "part") {
    const box = partOf(rig, point.partId)?.box as Schema["Box"];
    return { kind: "change", thing: `parts/${point.partId}`, values: { box: { ...box, at: lifted(box.at) } } };
  }
  const bend = runOf(rig, point.runId)?.bends.find((b) => b.id === point.bendId) as Schema["Bend"];
  return { kind: "change", thing: `runs/${point.runId}/bends/${point.bendId}`, values: { at: lifted(bend.at) } };
}

/** Something whose height can be changed. */
export type Handle = { kind: "bend"; runId: string; bendId: string } | { kind: "part"; partId: string };
