import pRetry from "p-retry";
import { createStore, type StoreApi } from "zustand/vanilla";
import { OFFLINE, Problem, type Schema } from "../api/client";
import type { RigApi } from "../api/rigs";
import { changedAnswer, ladderAt } from "./answers";
import { type DocumentStore, pendingOf } from "./documentState";

type Conditions = Schema["Conditions"];

type All = Required<Schema["AnswersAnswer"]["answers"]>;

/** What the bench wants to know of a rig. */
export const ofBench = ["drainDown", "freezeLadder", "advice", "tanks", "outlook"] as const;
/** What the brief wants to know. */
export const ofBrief = ["supply", "measureNext", "outlook"] as const;
/** What the weights want to know. */
export const ofWeights = ["weights", "outlook"] as const;
/** What the shell wants to know. */
export const ofShell = ["shellHeat", "outlook"] as const;
/** What the drain-down wants to know. */
export const ofDrain = ["drainDown", "drainOrder", "holds", "parking", "left", "outlook"] as const;
/** What the night wants to know. */
export const ofNight = ["night", "outlook"] as const;
/** What a lay-up wants to know. */
export const ofLayUp = ["drainDown", "left", "outlook"] as const;
export type Wanted = typeof ofLayUp | typeof ofBench | typeof ofBrief | typeof ofWeights | typeof ofShell | typeof ofDrain | typeof ofNight;
/** A place has the answers that it asked for, and only those. */
export type Answers = Pick<All, (typeof ofBench)[number]> &
  Partial<
    Pick<
      All,
      | (typeof ofBrief)[number]
      | (typeof ofWeights)[number]
      | (typeof ofShell)[number]
      | (typeof ofDrain)[number]
      | (typeof ofNight)[number]
      | "hourly"
    >
  >;

export interface AnswersState {
  /** The night that is asked about. */
  conditions: Conditions | null;
  /** It was set by the reader on this device; else it is the brief's. */
  own: boolean;
  answers: Answers | null;
  /** The hour of the night that is looked at; null: the morning. */
  look: number | null;
  /** The answers as they are drawn: what is cold as it is at that hour. */
  shown: Answers | null;
  /** The night and the document that the answers are about: what stands over them is named by it, and what has moved since is drawn without them. */
  night: Conditions | null;
  about: Schema["Rig"] | null;
  /** The answers are about an earlier document or night than the one that is shown. */
  stale: boolean;
  /** Why there is no newer answer. It is asked again by itself. */
  problem: string | null;
}

export interface AnswersStore extends StoreApi<AnswersState> {
  /** Looks at an hour of the night, or at the morning again. */
  lookAt(hour: number | null): void;
  setConditions(change: Partial<Conditions>): void;
  /** Back to the brief's night. */
  takeBriefNight(): void;
  close(): void;
}

/** A question that is overtaken is called off after so long; until then its answer is worth having. */
const OVERTAKEN_MS = 400;
/** Saved, but drawn as before: the answers stand, and are asked again in a quiet moment so that later ones differ little from those that are held. */
const QUIET_MS = 1500;
const RETRY = { retries: Number.POSITIVE_INFINITY, minTimeout: 1000, factor: 2, maxTimeout: 10_000 };
const nightKey = (id: string) => `night:${id}`;

/** The night that the reader has chosen for a rig on this device; null: the brief's. What happens in it stands in a plan of the rig. */
export function keptNight(id: string): Conditions | null {
  const kept = localStorage.getItem(nightKey(id));
  return kept ? { ...JSON.parse(kept), events: null } : null;
}

/** A night that names a plan this rig has not (any more) is one in which nothing is planned. */
const planned = (c: Conditions, rig: Schema["Rig"] | null): Conditions => ({
  ...c,
  ...(c.planId && !rig?.plans?.some((p) => p.id === c.planId) && { planId: null }),
  ...(c.modeId && !rig?.scenarios.some((s) => s.id === c.modeId) && { modeId: null }),
  // A mode that was looked at, of parts that are gone, is none any more.
  ...(c.heatSettings?.some((s) => !rig?.parts.some((p) => p.id === s.id)) && { heatSettings: null }),
});

function shownAt(answers: Answers, look: number | null): Answers {
  return look === null || !answers.hourly ? answers : { ...answers, freezeLadder: ladderAt(answers.freezeLadder, answers.hourly, look) };
}

/** The answers about the document as it is drawn. One question is under way at a time; while it is, only the newest after it counts. */
export function createAnswers(document: DocumentStore, api: RigApi, wanted: Wanted = ofBench): AnswersStore {
  const { id } = document.getState();
  const store = createStore<AnswersState>(() => ({
    conditions: keptNight(id),
    own: keptNight(id) !== null,
    answers: null,
    look: null,
    shown: null,
    night: null,
    about: null,
    stale: true,
    problem: null,
  }));
  let under: { call: AbortController; since: number } | null = null;
  let again = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let overtaken: ReturnType<typeof setTimeout> | undefined;
  /** The last answers about a saved revision: later ones come as what differs from them. */
  let held: { revision: number; night: string; answers: Answers } | null = null;
  let closed = false;

  async function ask(quiet = false) {
    clearTimeout(timer);
    if (closed || !document.getState().saved || (quiet && under)) return;
    if (!quiet && !store.getState().stale) store.setState({ stale: true });
    if (under) {
      again = true;
      const { call, since } = under;
      clearTimeout(overtaken);
      overtaken = setTimeout(() => call.abort(), Math.max(0, since + OVERTAKEN_MS - Date.now()));
      return;
    }
    do {
      again = false;
      under = { call: new AbortController(), since: Date.now() };
      try {
        // Each try asks about the newest document; a new question ends the waiting.
        const { signal } = under.call;
        await pRetry(() => askOnce(signal), { ...RETRY, signal, shouldRetry: ({ error }) => failed(error) });
      } catch (caught) {
        // Not called off by what overtook it, nor by the end of the window: something is wrong with the answer itself.
        if (!under.call.signal.aborted && !again && caught instanceof Error) store.setState({ problem: caught.message });
      }
      clearTimeout(overtaken);
    } while (again && !closed);
    under = null;
  }

  /** Says why there is no answer; false when it is not to be asked again as it is. */
  function failed(error: Error): boolean {
    if (again || closed) return false;
    if (error instanceof Problem && error.status === 400 && localStorage.getItem(nightKey(id))) {
      // A night from before, which this rig cannot have any more: that of the brief stands in.
      takeBriefNight();
      again = true;
      return false;
    }
    store.setState({ problem: error.message });
    // What is refused stays refused until something is changed; what the server could not do just now it may do in a moment.
    return !(error instanceof Problem) || error.status === OFFLINE || error.status >= 500;
  }

  async function askOnce(signal: AbortSignal) {
    const now = document.getState();
    const { revision, rig } = now;
    const edits = pendingOf(now);
    const { conditions: chosen, look } = store.getState();
    const conditions = chosen && planned(chosen, rig);
    const night = JSON.stringify(conditions);
    const hourly = look !== null;
    const known = conditions && held?.night === night && (!hourly || held.answers.hourly) ? held : null;
    const base = { id, base: revision, edits, effect: false, wanted: hourly ? [...wanted, "hourly"] : [...wanted] };
    const told = await api.answers({ ...base, ...(conditions && { conditions }), ...(known && { since: known.revision }) }, signal);
    const answers = { ...told.answers } as Record<string, object>;
    for (const [name, change] of Object.entries(told.changed))
      answers[name] = changedAnswer(known?.answers[name as keyof Answers] as object, change);
    const whole = answers as unknown as Answers;
    if (edits.length === 0) held = { revision, night: conditions ? night : JSON.stringify(told.conditions), answers: whole };
    if (closed) return;
    store.setState({
      conditions: store.getState().conditions ?? told.conditions,
      night: told.conditions,
      about: rig,
      answers: whole,
      shown: shownAt(whole, store.getState().look),
      problem: null,
      stale: again,
    });
  }

  const stop = document.subscribe((now, before) => {
    if (now.rig !== before.rig) void ask();
    else if (now.revision !== before.revision) {
      clearTimeout(timer);
      timer = setTimeout(() => void ask(!store.getState().problem), QUIET_MS);
    }
  });
  function setConditions(change: Partial<Conditions>) {
    const { conditions } = store.getState();
    if (!conditions) return;
    const next = { ...conditions, ...change };
    try {
      localStorage.setItem(nightKey(id), JSON.stringify(next));
    } catch {
      // The night is then that of the brief again when the rig is next opened.
    }
    store.setState({ conditions: next, own: true });
    void ask();
  }

  function takeBriefNight() {
    localStorage.removeItem(nightKey(id));
    store.setState({ conditions: null, own: false });
  }

  function lookAt(look: number | null) {
    const { answers, look: before } = store.getState();
    if (look === before) return;
    store.setState({ look, shown: answers && shownAt(answers, look) });
    if (look !== null && !answers?.hourly) void ask();
  }

  return Object.assign(store, {
    setConditions,
    takeBriefNight() {
      takeBriefNight();
      void ask();
    },
    lookAt,
    close() {
      closed = true;
      stop();
      clearTimeout(timer);
      under?.call.abort();
    },
  });
}
