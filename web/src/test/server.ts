import { OFFLINE, Problem, type Schema } from "../api/client";
import type { RigApi } from "../api/rigs";
import type { Draft, Drafts } from "../document/drafts";
import { drawn } from "../document/effects";
import { drain, night, rig } from "./rig";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];
const words = { text: "", values: [] };

/** A server of the size of these tests: one rig whose bend is raised, able to fail, to lose an answer, or to have moved on. */
export class Server implements RigApi {
  states = [rig];
  saves: { base: number; edits: Edit[]; key: string }[] = [];
  asked: Schema["AnswersRequest"][] = [];
  down = false;
  mute = false;
  gone = false;
  refuse: ((edits: Edit[]) => boolean) | null = null;
  readonly copies = new Map<string, Edit[]>();
  private readonly byKey = new Map<string, Schema["SavedEdits"]>();

  get revision() {
    return this.states.length;
  }

  get stored() {
    return this.states.at(-1) as Rig;
  }

  at = (revision: number) => this.states[revision - 1] as Rig;

  private reach() {
    if (this.down) throw new Problem(OFFLINE, "away", undefined, {}, {});
    if (this.gone) throw new Problem(404, "gone", undefined, {}, {});
  }

  async open() {
    this.reach();
    return { id: "test", revision: this.revision, rig: this.stored, what: words, savedAt: "" };
  }

  async save(id: string, ask: { base: number; edits: Edit[]; key: string }) {
    this.reach();
    if (id !== "test") {
      this.copies.get(id)?.push(...ask.edits);
      return { revision: ask.base + 1, onto: ask.base, effect: this.between(1, 1), what: words, inverse: [] };
    }
    const before = this.byKey.get(ask.key);
    const sent = this.saves.find((s) => s.key === ask.key)?.edits;
    if (before && JSON.stringify(sent) !== JSON.stringify(ask.edits))
      throw new Problem(409, "another", undefined, {}, { current: this.revision, revision: before.revision, edits: sent?.length ?? 0 });
    if (before) return before;
    if (this.refuse?.(ask.edits)) throw new Problem(400, "cannot be done", undefined, {}, {});
    // Everything here touches the one bend, so whatever came in between clashes.
    if (JSON.stringify(this.at(ask.base)) !== JSON.stringify(this.stored))
      throw new Problem(409, "changed", undefined, {}, { current: this.revision, keptAs: 99, clash: ["runs/upper/bends/b1/at/zM"] });
    this.saves.push(ask);
    const onto = this.revision;
    this.states.push(drawn(this.stored, ask.edits));
    const saved = {
      revision: this.revision,
      onto,
      effect: this.between(ask.base, this.revision),
      what: words,
      inverse: [{ kind: "restore", what: words, effect: this.between(this.revision, onto) } as Edit],
    };
    this.byKey.set(ask.key, saved);
    if (this.mute) throw new Problem(OFFLINE, "the answer was lost", undefined, {}, {});
    return saved;
  }

  async since(_: string, revision: number) {
    this.reach();
    return { revision: this.revision, effect: this.between(revision, this.revision), what: words, savedAt: "" };
  }

  async copy() {
    this.reach();
    const id = `test-${this.copies.size + 2}`;
    this.copies.set(id, []);
    return { id, revision: 1, rig: this.stored, what: words, savedAt: "" };
  }

  async answers(ask: Schema["AnswersRequest"]): Promise<Schema["AnswersAnswer"]> {
    this.reach();
    this.asked.push(ask);
    if (this.refuse?.(ask.edits ?? [])) throw new Problem(422, "too large", undefined, {}, {});
    const answers = {
      drainDown: drain,
      freezeLadder: {
        rungs: [],
        count: 0,
        zones: [{ zoneId: "room", airC: -5, heaterW: 0 }],
        morningS: 28800,
        endS: 43200,
        verdict: "passes",
      },
      advice: { findings: [], count: 0 },
      ...(ask.wanted.includes("hourly") && {
        hourly: { stepH: 1, steps: 6, zones: [{ zoneId: "room", c: [4, 3, 2, 1, 0, -1] }], rungs: [] },
      }),
    };
    // As the server writes it: what is left out is null.
    const told = {
      weather: null,
      ...night,
      ...ask.conditions,
    };
    return { conditions: told, effect: null, answers, changed: {} } as Schema["AnswersAnswer"];
  }

  private between(then: number, now: number): Schema["Effect"] {
    const [before, after] = [then, now].map((n) => this.at(n).runs[0]?.bends[0]?.at.zM);
    return {
      set: before === after ? [] : [{ path: "runs/upper/bends/b1/at/zM", before: before as never, after: after as never }],
      added: (this.at(now).plans ?? [])
        .filter((p) => !this.at(then).plans?.some((o) => o.id === p.id))
        .map((thing) => ({ list: "plans", thing: thing as never })),
      removed: [],
    };
  }
}

export class Shelf implements Drafts {
  kept = new Map<string, Draft>();
  full = false;
  read = async (id: string) => this.kept.get(id);
  drop = async (id: string) => void this.kept.delete(id);
  async write(id: string, draft: Draft) {
    if (this.full) throw new Error("quota");
    this.kept.set(id, structuredClone(draft));
  }
}
