// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import { OFFLINE, Problem, type Schema } from "../api/client";
import type { RigApi } from "../api/rigs";
import { rig } from "../test/rig";
import { Server, Shelf } from "../test/server";
import { saveStateOf } from "./documentState";
import { createDocument } from "./documentStore";
import { drawn } from "./effects";
import { movedBy } from "./things";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];
const bend = { kind: "point", runId: "upper", pointId: "b1" } as const;

let server: Server;
let shelf: Shelf;
const open = async () => {
  const document = createDocument("test", server, shelf);
  await document.open();
  return document;
};
type Doc = Awaited<ReturnType<typeof open>>;
const height = (document: Doc) => document.getState().rig?.runs[0]?.bends[0]?.at.zM;
const lift = (document: Doc, byM: number) => movedBy(document.getState().rig as Rig, [bend], { xM: 0, yM: 0, zM: byM }, () => false);
const settle = () => vi.advanceTimersByTimeAsync(10_000);
const saveState = (document: Doc) => saveStateOf(document.getState());

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
  server = new Server();
  shelf = new Shelf();
  return () => vi.useRealTimers();
});

describe("the document", () => {
  it("shows a drag at once and keeps none of it until it is let go; then it is saved as one edit a moment later", async () => {
    const document = await open();
    for (const by of [0.01, 0.02, 0.03]) document.show(movedBy(rig, [bend], { xM: 0, yM: 0, zM: by }, () => false));
    expect(height(document)).toBeCloseTo(0.23);
    document.commit("dragged", document.getState().previewEdits);
    // The next drag is under way before the save goes out, and stays out of it.
    document.show(lift(document, 1));
    expect(saveState(document)).toBe("unsaved");
    await settle();
    expect(server.saves).toHaveLength(1);
    expect(server.stored.runs[0]?.bends[0]?.at.zM).toBeCloseTo(0.23);
    expect(height(document)).toBeCloseTo(1.23);
    document.letGo();
    expect([height(document), saveState(document), document.getState().revision]).toEqual([expect.closeTo(0.23), "saved", 2]);
    expect(shelf.kept.size).toBe(0);
  });
  it("draws only the newest of what a pointer drags, and nothing of it once it is let go", async () => {
    const document = await open();
    const drawn = vi.fn();
    for (const by of [0.1, 0.2, 0.3]) document.drag(lift(document, by));
    expect([height(document), document.holds()]).toEqual([expect.closeTo(0.2), true]);
    document.subscribe(drawn);
    vi.advanceTimersByTime(1);
    expect([height(document), drawn.mock.calls.length]).toEqual([expect.closeTo(0.5), 1]);
    document.drag(lift(document, 1));
    document.letGo();
    vi.advanceTimersByTime(1);
    expect([height(document), document.holds()]).toEqual([expect.closeTo(0.2), false]);
  });

  it("keeps edits on the device in a list while the server is away, and saves them when it is back; a reload takes them up", async () => {
    const document = await open();
    server.down = true;
    document.commit("alone", lift(document, 0.05));
    document.commit("and again", lift(document, 0.05));
    await settle();
    expect(saveState(document)).toBe("offline");
    expect(shelf.kept.get("test")?.waiting.map((w) => w.what)).toEqual(["alone", "and again"]);
    document.close();
    server.down = false;
    const reloaded = await open();
    expect(height(reloaded)).toBeCloseTo(0.3);
    await settle();
    expect([server.saves.length, saveState(reloaded), shelf.kept.size]).toEqual([1, "saved", 0]);
  });

  it("does not clash with itself when an answer was lost, nor after a page that was left in mid-save", async () => {
    const document = await open();
    server.mute = true;
    document.commit("heard by the server alone", lift(document, 0.05));
    await vi.advanceTimersByTimeAsync(600);
    server.mute = false;
    document.commit("and one more", lift(document, 0.05));
    await settle();
    expect([server.saves.length, height(document), saveState(document)]).toEqual([2, expect.closeTo(0.3), "saved"]);

    document.commit("while leaving", lift(document, 0.05));
    const left = document.leave();
    document.close();
    await server.save("test", left as NonNullable<typeof left>);
    const again = await open();
    await settle();
    expect([server.saves.length, again.getState().conflict, height(again)]).toEqual([3, null, expect.closeTo(0.35)]);
  });

  it("sends no more with a page that goes than a browser takes", async () => {
    const document = await open();
    document.commit("much", [{ kind: "change", thing: "rig", values: { note: "x".repeat(70_000) } } as unknown as Edit]);
    expect(document.leave()).toBeNull();
  });

  it("says when this device has no room for what waits", async () => {
    const document = await open();
    [server.down, shelf.full] = [true, true];
    document.commit("no room", lift(document, 0.05));
    await settle();
    expect(document.getState().unkept).toBe(true);
    expect(height(document)).toBeCloseTo(0.25);
    server.down = false;
    await settle();
    expect([document.getState().unkept, saveState(document)]).toEqual([false, "saved"]);
  });

  it("keeps what waits for a rig that was taken off, and saves it when it is brought back", async () => {
    const document = await open();
    server.down = true;
    document.commit("late", lift(document, 0.05));
    await settle();
    document.heard({ rigId: "test", kind: "removed", revision: 1 });
    expect([document.getState().missing?.status, shelf.kept.get("test")?.waiting.length]).toEqual([404, 1]);
    server.down = false;
    document.heard({ rigId: "test", kind: "added", revision: 1 });
    await vi.waitFor(() => expect([server.saves.length, shelf.kept.size]).toEqual([1, 0]));
  });

  it("keeps all that waited in the copy beside it, though the first attempt took only one of them along", async () => {
    const document = await open();
    server.down = true;
    for (let n = 1; n <= 5; n++) {
      document.commit(`mine ${n}`, lift(document, n / 100));
      await settle();
    }
    server.states.push(
      drawn(
        server.stored,
        movedBy(server.stored, [bend], { xM: 0, yM: 0, zM: 0.5 }, () => false),
      ),
    );
    server.down = false;
    await document.flush();
    expect(document.getState().conflict).not.toBeNull();
    expect(await document.settle("both")).toBe("test-2");
    expect(server.copies.get("test-2")).toHaveLength(5);
  });

  it("loses nothing when another window sent a part of it under the same name", async () => {
    const document = await open();
    server.down = true;
    document.commit("first", lift(document, 0.01));
    await settle();
    const [first] = document.getState().waiting;
    server.down = false;
    // The draft in a second window.
    await server.save("test", { base: 1, edits: first?.edits ?? [], key: first?.key ?? "" });
    document.getState().sending = null;
    document.commit("second", lift(document, 0.02));
    await document.flush();
    expect(server.saves.flatMap((s) => s.edits)).toHaveLength(2);
    expect(height(document)).toBeCloseTo(0.23);
  });

  it("two windows, cut off at random, lose no edit: each is in the rig, waits, or is in a copy", async () => {
    for (let seed = 1; seed <= 60; seed++) {
      server = new Server();
      let state = seed * 2_654_435_761;
      const random = (n: number) => {
        state = (Math.imul(state ^ (state >>> 15), 2_246_822_519) + 0x9e3779b9) >>> 0;
        return (state >>> 8) % n;
      };
      const windows = await Promise.all(
        [0, 1].map(async () => {
          const reach = { cut: false };
          const guarded = new Proxy(server, {
            get: (of, name) => {
              const found = Reflect.get(of, name);
              if (typeof found !== "function") return found;
              return (...args: unknown[]) => {
                if (reach.cut) return Promise.reject(new Problem(OFFLINE, "cut off", undefined, {}, {}));
                return (found as (...a: unknown[]) => unknown).apply(of, args);
              };
            },
          }) as unknown as RigApi;
          const document = createDocument("test", guarded, new Shelf());
          await document.open();
          return { document, reach };
        }),
      );
      const made: string[] = [];
      for (let n = 0; n < 14; n++) {
        const { document, reach } = windows[random(2)] as (typeof windows)[number];
        const what = random(6);
        if (what < 3) {
          const edits = lift(document, (n + 1) / 1000);
          made.push(JSON.stringify(edits));
          document.commit(`edit ${n}`, edits);
        } else if (what === 3) reach.cut = !reach.cut;
        else if (document.getState().conflict && !reach.cut) await document.settle(random(2) === 0 ? "mine" : "both");
        else await document.flush().catch(() => undefined);
      }
      for (const { document, reach } of windows) {
        reach.cut = false;
        for (let again = 0; again < 4 && !(await document.flush()); again++)
          if (document.getState().conflict) await document.settle("both");
      }
      const kept = new Set(
        [
          ...server.saves.flatMap((s) => s.edits),
          ...[...server.copies.values()].flat(),
          ...windows.flatMap((w) => w.document.getState().waiting.flatMap((x) => x.edits)),
        ].map((e) => JSON.stringify([e])),
      );
      expect(
        made.filter((m) => !kept.has(m)),
        `seed ${seed}`,
      ).toEqual([]);
      for (const { document } of windows) document.close();
    }
  });

  it("names a clash; goes on with this copy, with the other, or with both", async () => {
    const document = await open();
    const other = (by: number) =>
      server.states.push(
        drawn(
          server.stored,
          movedBy(server.stored, [bend], { xM: 0, yM: 0, zM: by }, () => false),
        ),
      );
    other(0.5);
    document.commit("mine", lift(document, 0.05));
    await settle();
    expect(document.getState().conflict).toEqual({ current: 2, keptAs: 99, clash: ["runs/upper/bends/b1/at/zM"] });
    await document.settle("mine");
    expect([height(document), server.saves.length]).toEqual([expect.closeTo(0.25), 1]);
    other(0.5);
    document.commit("mine again", lift(document, 0.05));
    await settle();
    expect(await document.settle("both")).toBe("test-2");
    expect([height(document), document.getState().waiting]).toEqual([expect.closeTo(0.75), []]);
  });

  it("lets an edit go that cannot be done, with its reason, and keeps the others", async () => {
    const document = await open();
    server.refuse = (edits) => edits.some((e) => e.kind === "remove");
    document.commit("good", lift(document, 0.05));
    document.commit("bad", [{ kind: "remove", thing: "parts/ghost" } as Edit]);
    await settle();
    expect([server.saves.length, height(document), document.getState().waiting]).toEqual([1, expect.closeTo(0.25), []]);
    expect(document.getState().refusal).toContain("bad: ");
  });

  it("undoes and redoes its own edits, saved or not, across a reload; a nudge right after an undo stands", async () => {
    const document = await open();
    document.commit("first", lift(document, 0.05));
    await settle();
    document.commit("second", lift(document, 0.05));
    await document.undo();
    expect([height(document), server.saves.length]).toEqual([expect.closeTo(0.25), 1]);
    await document.undo();
    // Drawn at once, before the server has answered.
    expect(height(document)).toBeCloseTo(0.2);
    document.commit("nudge", lift(document, 0.001));
    await settle();
    expect([height(document), document.getState().conflict]).toEqual([expect.closeTo(0.201), null]);
    await document.undo();
    await settle();
    expect(height(document)).toBeCloseTo(0.2);
    document.close();
    const again = await open();
    expect(again.getState().undone).toHaveLength(1);
    await again.redo();
    await settle();
    expect(height(again)).toBeCloseTo(0.201);
  });

  it("never undoes what another window did since", async () => {
    const document = await open();
    document.commit("mine", lift(document, 0.05));
    await settle();
    const elsewhere = movedBy(server.stored, [bend], { xM: 0, yM: 0, zM: 0.5 }, () => false);
    server.states.push(drawn(server.stored, elsewhere));
    document.heard({ rigId: "test", kind: "saved", revision: 3 });
    await settle();
    await document.undo();
    await settle();
    expect(document.getState().refusal).toContain("changed elsewhere since");
    expect([height(document), document.getState().conflict]).toEqual([expect.closeTo(0.75), null]);
  });
});
