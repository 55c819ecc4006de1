import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schema } from "../../api/client";
import { drain, night, rig } from "../../test/rig";
import { raised, useBench } from "./benchStore";

const bend = { kind: "bend", runId: "upper", bend: 0 } as const;
const height = () => useBench.getState().rig?.runs[0]?.via[0]?.zM;

/** A server of the size of these tests: one rig, saves counted, able to fail or to have moved on. */
class Server {
  revision = 1;
  stored: Schema["Rig"] = rig;
  saves: string[] = [];
  asked = 0;
  down = false;

  answer = async (input: Request | string | URL, init?: RequestInit): Promise<Response> => {
    const request = input instanceof Request ? input : new Request(new URL(String(input), location.href), init);
    if (this.down) throw new TypeError("connection refused");
    const body = request.method === "GET" ? null : await request.json();
    if (request.url.endsWith("/studies/bench")) {
      this.asked++;
      return Response.json({ drain, ladder: { rungs: [], zones: [], morningS: 28800 }, findings: [] });
    }
    if (request.url.endsWith("/undo")) {
      this.stored = rig;
      return Response.json(this.shelved(++this.revision));
    }
    if (request.method === "PUT") {
      if (body.baseRevision !== this.revision) {
        return Response.json({ title: "moved on", current: this.revision, keptAs: 99 }, { status: 409 });
      }
      this.saves.push(body.what);
      this.stored = body.rig;
      return Response.json(this.shelved(++this.revision));
    }
    return Response.json({ shelved: this.shelved(this.revision), standing: { night } });
  };

  shelved = (revision: number) => ({ rig: this.stored, revision, canUndo: true, canRedo: false, what: "", savedAt: "" });
}

let server: Server;
const settle = () => vi.advanceTimersByTimeAsync(5000);

beforeEach(async () => {
  vi.useFakeTimers();
  localStorage.clear();
  server = new Server();
  vi.stubGlobal("fetch", server.answer);
  await useBench.getState().load("test");
});

afterEach(async () => {
  server.down = false;
  await settle();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the bench", () => {
  it("shows a drag at once, keeps it once, and saves it a moment later", async () => {
    const { preview, commit } = useBench.getState();
    for (const by of [0.01, 0.02, 0.03]) preview((r) => raised(r, bend, by));
    expect(height()).toBeCloseTo(0.23);
    expect(server.saves).toEqual([]);
    commit("dragged");
    expect(useBench.getState().saveState).toBe("unsaved");
    await settle();
    expect(server.saves).toEqual(["dragged"]);
    expect(server.stored.runs[0]?.via[0]?.zM).toBeCloseTo(0.23);
    expect(useBench.getState().saveState).toBe("saved");
    expect(localStorage.getItem("draft:test")).toBeNull();
  });

  it("asks one question at a time and never misses the last", async () => {
    const before = server.asked;
    for (let i = 1; i <= 20; i++) useBench.getState().preview((r) => raised(r, bend, i / 1000));
    await settle();
    expect(server.asked - before).toBeLessThanOrEqual(3);
    expect(server.asked - before).toBeGreaterThanOrEqual(1);
  });

  it("puts a drag back when it is called off", () => {
    useBench.getState().preview((r) => raised(r, bend, 0.1));
    useBench.getState().cancelPreview();
    expect(height()).toBe(0.2);
  });

  it("keeps a change on the device while the server is away, and saves it when it is back", async () => {
    server.down = true;
    useBench.getState().commit("alone", (r) => raised(r, bend, 0.05));
    await settle();
    expect(useBench.getState().saveState).toBe("offline");
    expect(localStorage.getItem("draft:test")).toContain("alone");
    server.down = false;
    await settle();
    expect(server.saves).toEqual(["alone"]);
    expect(useBench.getState().saveState).toBe("saved");
  });

  it("takes up a draft that a closed lid left behind", async () => {
    const draft = raised(rig, bend, 0.07);
    localStorage.setItem("draft:test", JSON.stringify({ revision: 1, rig: draft, what: "before the lid closed" }));
    await useBench.getState().load("test");
    expect(server.saves).toEqual(["before the lid closed"]);
    expect(height()).toBeCloseTo(0.27);
  });

  it("says when somebody else saved, and goes on with this copy or with the other", async () => {
    server.revision = 7;
    useBench.getState().commit("mine", (r) => raised(r, bend, 0.05));
    await settle();
    expect(useBench.getState().conflict).toEqual({ current: 7, keptAs: 99 });
    await useBench.getState().resolveConflict("mine");
    expect(server.saves).toEqual(["Kept this copy after a clash"]);
    expect(useBench.getState().conflict).toBeNull();

    server.revision = 20;
    server.stored = rig;
    useBench.getState().commit("mine again", (r) => raised(r, bend, 0.05));
    await settle();
    await useBench.getState().resolveConflict("theirs");
    expect(height()).toBe(0.2);
    expect(useBench.getState().revision).toBe(20);
  });

  it("saves what is pending before it undoes", async () => {
    useBench.getState().commit("pending", (r) => raised(r, bend, 0.05));
    await useBench.getState().move("undo");
    expect(server.saves).toEqual(["pending"]);
    expect(height()).toBe(0.2);
  });

  it("remembers the night of each rig on this device", async () => {
    useBench.getState().setConditions({ outdoorC: -17 });
    await useBench.getState().load("test");
    expect(useBench.getState().conditions?.outdoorC).toBe(-17);
    expect(useBench.getState().conditions?.hours).toBe(8);
  });
});
