import { create } from "zustand";
import { api, data, OFFLINE, Problem, type Schema } from "../../api/client";

type Rig = Schema["Rig"];
type Conditions = Schema["Conditions"];
type Answer = Schema["BenchAnswer"];
type Shelved = Schema["ShelvedRig"];

/** The two lenses over the drawings. */
export type Lens = "drain" | "cold";

/** Where the document stands against the server. */
export type SaveState = "saved" | "unsaved" | "saving" | "offline" | "refused";

/** What is in hand: a run, one of its points, a part, a finding. */
export interface Selection {
  runId: string | null;
  station: number | null;
  partId: string | null;
  findingId: string | null;
}

interface Conflict {
  current: number;
  keptAs: number | null;
}

interface Bench {
  rig: Rig | null;
  /** The document as it was when a drag began. */
  held: Rig | null;
  revision: number;
  canUndo: boolean;
  canRedo: boolean;
  saveState: SaveState;
  refusal: string | null;
  conflict: Conflict | null;
  conditions: Conditions | null;
  answer: Answer | null;
  studyProblem: string | null;
  lens: Lens;
  selection: Selection;
  load(id: string): Promise<void>;
  setConditions(change: Partial<Conditions>): void;
  setLens(lens: Lens): void;
  select(selection: Partial<Selection>): void;
  /** Shows a changed rig without keeping it: while dragging. */
  preview(change: (rig: Rig) => Rig): void;
  /** Keeps what is shown (after a drag), or a change at once. */
  commit(what: string, change?: (rig: Rig) => Rig): void;
  cancelPreview(): void;
  move(way: "undo" | "redo"): Promise<void>;
  resolveConflict(keep: "mine" | "theirs"): Promise<void>;
}

const nothing: Selection = { runId: null, station: null, partId: null, findingId: null };
const SAVE_AFTER_MS = 500;
const draftKey = (id: string) => `draft:${id}`;
const nightKey = (id: string) => `night:${id}`;

let saveTimer: ReturnType<typeof setTimeout> | undefined;
let pendingWhat: string | null = null;
let saving: Promise<void> | null = null;
let asking = false;
let askAgain = false;

/** The rig on the bench: the working document, the night it is asked about, and the answers. */
export const useBench = create<Bench>((set, get) => {
  const take = (shelved: Shelved) =>
    set({
      rig: shelved.rig,
      held: null,
      revision: shelved.revision,
      canUndo: shelved.canUndo,
      canRedo: shelved.canRedo,
      saveState: "saved",
      refusal: null,
      conflict: null,
    });

  // One question is under way at a time; while it is, only the newest one after it counts.
  async function ask() {
    if (asking) {
      askAgain = true;
      return;
    }
    asking = true;
    do {
      askAgain = false;
      const { rig, conditions } = get();
      if (!rig || !conditions) break;
      try {
        const answer = data(await api.POST("/api/studies/bench", { body: { rig, conditions } }));
        if (get().rig?.id === rig.id) set({ answer, studyProblem: null });
      } catch (problem) {
        set({ studyProblem: problem instanceof Problem ? problem.message : String(problem) });
      }
    } while (askAgain);
    asking = false;
  }

  function keepDraft() {
    const { rig, revision } = get();
    if (!rig || pendingWhat === null) return;
    localStorage.setItem(draftKey(rig.id), JSON.stringify({ revision, rig, what: pendingWhat }));
  }

  function saveSoon() {
    clearTimeout(saveTimer);
    saveTimer = setTimeout(() => void save(), SAVE_AFTER_MS);
  }

  async function save(): Promise<void> {
    clearTimeout(saveTimer);
    if (saving) await saving;
    const { rig, revision } = get();
    if (!rig || pendingWhat === null || get().conflict) return;
    const what = pendingWhat;
    pendingWhat = null;
    set({ saveState: "saving" });
    saving = (async () => {
      try {
        const saved = data(
          await api.PUT("/api/rigs/{id}", {
            params: { path: { id: rig.id } },
            body: { baseRevision: revision, what, rig },
          }),
        );
        if (get().rig?.id !== rig.id) return;
        set({
          revision: saved.revision,
          canUndo: saved.canUndo,
          canRedo: saved.canRedo,
          saveState: pendingWhat === null ? "saved" : "unsaved",
          refusal: null,
        });
        if (pendingWhat === null) localStorage.removeItem(draftKey(rig.id));
        else keepDraft();
      } catch (caught) {
        const problem = caught instanceof Problem ? caught : new Problem(OFFLINE, String(caught), undefined, {}, {});
        if (problem.status === 409) {
          set({
            saveState: "refused",
            conflict: {
              current: Number(problem.extra.current),
              keptAs: problem.extra.keptAs == null ? null : Number(problem.extra.keptAs),
            },
          });
          localStorage.removeItem(draftKey(rig.id));
          return;
        }
        pendingWhat ??= what;
        if (problem.status === OFFLINE || problem.status >= 500) {
          set({ saveState: "offline" });
          clearTimeout(saveTimer);
          saveTimer = setTimeout(() => void save(), 3000);
        } else set({ saveState: "refused", refusal: problem.message });
      }
    })();
    await saving;
    saving = null;
  }

  return {
    rig: null,
    held: null,
    revision: 0,
    canUndo: false,
    canRedo: false,
    saveState: "saved",
    refusal: null,
    conflict: null,
    conditions: null,
    answer: null,
    studyProblem: null,
    lens: "drain",
    selection: nothing,

    async load(id) {
      await save();
      pendingWhat = null;
      set({ rig: null, answer: null, selection: nothing, lens: "drain" });
      const card = data(await api.GET("/api/rigs/{id}", { params: { path: { id } } }));
      take(card.shelved);
      const night = localStorage.getItem(nightKey(id));
      set({ conditions: night ? { ...card.standing.night, ...JSON.parse(night) } : card.standing.night });
      const draft = localStorage.getItem(draftKey(id));
      if (draft) {
        // A lid was closed before the last change was saved.
        const { rig, revision, what } = JSON.parse(draft);
        pendingWhat = what;
        set({ rig, revision, saveState: "unsaved" });
        await save();
      }
      await ask();
      const first = get().answer?.findings.find((f) => f.runIds.length > 0);
      if (first && !get().selection.runId) set({ selection: { ...nothing, runId: first.runIds[0] ?? null, findingId: first.id } });
    },

    setConditions(change) {
      const { rig, conditions } = get();
      if (!rig || !conditions) return;
      const next = { ...conditions, ...change };
      localStorage.setItem(nightKey(rig.id), JSON.stringify(next));
      set({ conditions: next });
      void ask();
    },

    setLens: (lens) => set({ lens }),
    select: (selection) => set({ selection: { ...nothing, ...selection } }),

    preview(change) {
      const { rig, held } = get();
      if (!rig) return;
      const from = held ?? rig;
      set({ held: from, rig: change(from) });
      void ask();
    },

    commit(what, change) {
      const { rig, held } = get();
      if (!rig) return;
      const next = change ? change(held ?? rig) : rig;
      set({ rig: next, held: null, saveState: "unsaved", canUndo: true, canRedo: false });
      pendingWhat = pendingWhat !== null && pendingWhat !== what ? `${what}, and before: ${pendingWhat}`.slice(0, 200) : what;
      keepDraft();
      void ask();
      saveSoon();
    },

    cancelPreview() {
      const { held } = get();
      if (!held) return;
      set({ rig: held, held: null });
      void ask();
    },

    async move(way) {
      await save();
      const { rig, revision } = get();
      if (!rig || get().conflict) return;
      try {
        const body = { baseRevision: revision };
        const params = { path: { id: rig.id } };
        take(
          data(
            way === "undo"
              ? await api.POST("/api/rigs/{id}/undo", { params, body })
              : await api.POST("/api/rigs/{id}/redo", { params, body }),
          ),
        );
        await ask();
      } catch (caught) {
        const problem = caught as Problem;
        if (problem.status === 409) set({ conflict: { current: Number(problem.extra.current), keptAs: null } });
        else set({ saveState: "offline" });
      }
    },

    async resolveConflict(keep) {
      const { rig, conflict } = get();
      if (!rig || !conflict) return;
      if (keep === "theirs") {
        const card = data(await api.GET("/api/rigs/{id}", { params: { path: { id: rig.id } } }));
        pendingWhat = null;
        take(card.shelved);
      } else {
        set({ revision: conflict.current, conflict: null });
        pendingWhat = "Kept this copy after a clash";
        await save();
      }
      await ask();
    },
  };
});

// A lid closed in mid-edit: the draft is on this device already; this asks the server to have it too.
window.addEventListener("pagehide", () => {
  const { rig, revision } = useBench.getState();
  if (!rig || pendingWhat === null) return;
  void fetch(`/api/rigs/${rig.id}`, {
    method: "PUT",
    keepalive: true,
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ baseRevision: revision, what: pendingWhat, rig }),
  }).then((answer) => answer.ok && localStorage.removeItem(draftKey(rig.id)));
});

/** The runs of a rig by id, and its parts: small enough to be looked up by walking. */
export const runOf = (rig: Rig, id: string | null) => rig.runs.find((r) => r.id === id);
export const partOf = (rig: Rig, id: string | null) => rig.parts.find((p) => p.id === id);

/** Height of a bend, or of a part with all its ports, raised by `byM`; heights are kept to the tenth of a millimetre. */
export function raised(rig: Rig, point: Handle, byM: number): Rig {
  const lift = (z: number) => Math.round((z + byM) * 10000) / 10000;
  if (point.kind === "part") {
    return {
      ...rig,
      parts: rig.parts.map((p) => (p.id === point.partId ? { ...p, box: { ...p.box, at: { ...p.box.at, zM: lift(p.box.at.zM) } } } : p)),
    };
  }
  return {
    ...rig,
    runs: rig.runs.map((r) =>
      r.id === point.runId ? { ...r, via: r.via.map((v, i) => (i === point.bend ? { ...v, zM: lift(v.zM) } : v)) } : r,
    ),
  };
}

/** Something whose height can be changed. */
export type Handle = { kind: "bend"; runId: string; bend: number } | { kind: "part"; partId: string };
