import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schema } from "../../api/client";
import { drawn } from "../../document/effects";
import { drain, night, rig } from "../../test/rig";
import { raised, useBench } from "./benchStore";

type Edit = Schema["Edit"];
const bend = { kind: "bend", runId: "upper", bendId: "b1" } as const;
const bench = () => useBench.getState();
const height = () => bench().rig?.runs[0]?.bends[0]?.at.zM;
const lift = (byM: number) => [raised(bench().rig as Schema["Rig"], bend, byM)];

/** A server of the size of these tests: one rig whose bend is raised, saves counted, able to fail or to have moved on. */
class Server {
  revision = 1;
  states = [rig];
  saves: Edit[][] = [];
  asked: { base: number; edits: Edit[] }[] = [];
  down = false;

  get stored() {
    return this.states.at(-1) as Schema["Rig"];
  }

  put(edits: Edit[]) {
    this.states.push(drawn(this.stored, edits));
    return ++this.revision;
  }

  answer = async (input: Request | string | URL, init?: RequestInit): Promise<Response> => {
    const request = input instanceof Request ? input : new Request(new URL(String(input), location.href), init);
    if (this.down) throw new TypeError("connection refused");
    const path = new URL(request.url).pathname;
    const body = request.method === "GET" ? null : await request.json();
    if (path === "/api/answers") {
      this.asked.push({ base: body.base, edits: body.edits ?? [] });
      const answers = {
        drainDown: drain,
        freezeLadder: { rungs: [], count: 0, zones: [], morningS: 28800, verdict: "passes" },
        advice: { findings: [], count: 0 },
      };
      return Response.json({ conditions: night, effect: null, answers, changed: {} });
    }
    if (path.endsWith("/edits")) {
      // Everything here touches the one bend, so whatever came in between clashes.
      const then = this.states[body.base - 1] as Schema["Rig"];
      if (JSON.stringify(then) !== JSON.stringify(this.stored))
        return Response.json(
          { title: "changed", current: this.revision, keptAs: 99, clash: ["runs/upper/bends/b1/at/zM"] },
          { status: 409 },
        );
      this.saves.push(body.edits);
      const onto = this.revision;
      const revision = this.put(body.edits);
      return Response.json({
        revision,
        onto,
        effect: this.between(then, this.stored),
        what: { text: "", values: [] },
        inverse: [this.back(then, this.stored)],
      });
    }
    if (path.includes("/since/")) {
      return Response.json({
        revision: this.revision,
        effect: this.between(this.states[Number(path.split("/").at(-1)) - 1] as Schema["Rig"], this.stored),
      });
    }
    if (path.includes("/revisions/")) return Response.json(this.states[Number(path.split("/").at(-1)) - 1]);
    return Response.json({ id: "test", revision: this.revision, rig: this.stored, what: { text: "", values: [] }, savedAt: "" });
  };

  between(then: Schema["Rig"], now: Schema["Rig"]): Schema["Effect"] {
    const [before, after] = [then, now].map((r) => r.runs[0]?.bends[0]?.at.zM);
    return { set: before === after ? [] : [{ path: "runs/upper/bends/b1/at/zM", before, after }], added: [], removed: [] };
  }

  back(then: Schema["Rig"], now: Schema["Rig"]): Edit {
    return { kind: "restore", what: { text: "", values: [] }, effect: this.between(now, then) };
  }
}

let server: Server;
const settle = () => vi.advanceTimersByTimeAsync(5000);

beforeEach(async () => {
  vi.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
  server = new Server();
  vi.stubGlobal("fetch", server.answer);
  await bench().load("test");
});

afterEach(async () => {
  server.down = false;
  await settle();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the bench", () => {
  it("shows a drag at once, keeps it once, and saves it as one edit a moment later", async () => {
    for (const by of [0.01, 0.02, 0.03]) bench().show([raised(bench().saved as Schema["Rig"], bend, by)]);
    expect(height()).toBeCloseTo(0.23);
    expect(bench().stale).toBe(true);
    expect(server.saves).toEqual([]);
    bench().commit("dragged", bench().preview);
    expect(bench().saveState).toBe("unsaved");
    await settle();
    expect(server.saves).toHaveLength(1);
    expect(server.stored.runs[0]?.bends[0]?.at.zM).toBeCloseTo(0.23);
    expect([bench().saveState, bench().stale, bench().revision]).toEqual(["saved", false, 2]);
    expect(localStorage.getItem("draft:test")).toBeNull();
  });

  it("asks one question at a time with no more than the edits, and never misses the last", async () => {
    const before = server.asked.length;
    for (let i = 1; i <= 20; i++) bench().show(lift(0.001));
    await settle();
    const asked = server.asked.slice(before);
    expect(asked.length).toBeLessThanOrEqual(3);
    expect(asked.at(-1)?.edits).toEqual(bench().preview);
  });

  it("puts a drag back when it is called off", () => {
    bench().show(lift(0.1));
    bench().cancelPreview();
    expect(height()).toBe(0.2);
  });

  it("keeps edits on the device in a list while the server is away, and saves them when it is back", async () => {
    server.down = true;
    bench().commit("alone", lift(0.05));
    bench().commit("and again", lift(0.05));
    await settle();
    expect(bench().saveState).toBe("offline");
    expect(bench().waiting.map((w) => w.what)).toEqual(["alone", "and again"]);
    expect(height()).toBeCloseTo(0.3);
    expect(localStorage.getItem("draft:test")).toContain("alone");
    server.down = false;
    await settle();
    expect(server.saves).toHaveLength(1);
    expect(bench().saveState).toBe("saved");
  });

  it("takes up edits that a closed lid left behind, on the revision on which they were made", async () => {
    localStorage.setItem("draft:test", JSON.stringify({ base: 1, waiting: [{ what: "before the lid closed", edits: lift(0.07) }] }));
    await bench().load("test");
    expect(server.saves).toHaveLength(1);
    expect(height()).toBeCloseTo(0.27);

    localStorage.setItem("draft:test", JSON.stringify({ base: 1, waiting: [{ what: "too late", edits: lift(0.01) }] }));
    await bench().load("test");
    expect(bench().conflict).toMatchObject({ current: 2, keptAs: 99 });
    await bench().resolveConflict("theirs");
    expect(height()).toBeCloseTo(0.27);
  });

  it("names a clash, and goes on with this copy or with the other", async () => {
    server.put(lift(0.5));
    bench().commit("mine", lift(0.05));
    await settle();
    expect(bench().conflict).toEqual({ current: 2, keptAs: 99, clash: ["runs/upper/bends/b1/at/zM"] });
    await bench().resolveConflict("mine");
    expect(server.saves).toHaveLength(1);
    expect(server.stored.runs[0]?.bends[0]?.at.zM).toBeCloseTo(0.25);
    expect(bench().conflict).toBeNull();
  });

  it("undoes and redoes its own edits, across a reload, and saves what is pending first", async () => {
    bench().commit("pending", lift(0.05));
    await bench().move("undo");
    expect(server.saves).toHaveLength(2);
    expect(height()).toBe(0.2);
    await bench().load("test");
    expect(bench().canRedo).toBe(true);
    await bench().move("redo");
    expect(height()).toBeCloseTo(0.25);
    expect([bench().canUndo, bench().canRedo]).toEqual([true, false]);
  });

  it("never undoes what another window did since", async () => {
    bench().commit("mine", lift(0.05));
    await settle();
    server.put(lift(0.5));
    await bench().move("undo");
    expect(bench().refusal).toContain("changed elsewhere since");
    expect(server.stored.runs[0]?.bends[0]?.at.zM).toBeCloseTo(0.75);
    expect(bench().conflict).toBeNull();
  });

  it("remembers the night of each rig on this device", async () => {
    bench().setConditions({ outdoorC: -17 });
    await bench().load("test");
    expect(bench().conditions?.outdoorC).toBe(-17);
    expect(bench().conditions?.hours).toBe(8);
  });
});
