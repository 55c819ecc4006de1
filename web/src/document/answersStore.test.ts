// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import { planOf } from "../places/night/plan";
import { night, rig } from "../test/rig";
import { Server, Shelf } from "../test/server";
import { createAnswers } from "./answersStore";
import { createDocument } from "./documentStore";
import { added } from "./edits";
import { movedBy } from "./things";

const bend = { kind: "point", runId: "upper", pointId: "b1" } as const;
let server: Server;
let shelf: Shelf;
const settle = () => vi.advanceTimersByTimeAsync(10_000);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
  server = new Server();
  shelf = new Shelf();
});

describe("the answers", () => {
  it("ask one question at a time with no more than the edits, never miss the last, and say when they are of another state", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    expect([answers.getState().stale, answers.getState().about]).toEqual([false, document.getState().rig]);
    const before = server.asked.length;
    for (let i = 1; i <= 20; i++) document.show(movedBy(rig, [bend], { xM: 0, yM: 0, zM: i / 1000 }, () => false));
    expect(answers.getState().stale).toBe(true);
    await settle();
    const asked = server.asked.slice(before);
    expect(asked.length).toBeLessThanOrEqual(3);
    expect(asked.at(-1)?.edits).toEqual(document.getState().previewEdits);
    expect(asked.at(-1)?.since).toBe(1);
  });

  it("stand when a save leaves what is drawn as it was, and are asked again in a quiet moment", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    document.commit(
      "Height",
      movedBy(rig, [bend], { xM: 0, yM: 0, zM: 0.01 }, () => false),
    );
    const shown = document.getState().rig;
    await vi.advanceTimersByTimeAsync(100);
    const seen: boolean[] = [];
    answers.subscribe((s) => seen.push(s.stale));
    const before = server.asked.length;
    await vi.advanceTimersByTimeAsync(1200);
    expect([document.getState().revision, document.getState().waiting]).toEqual([2, []]);
    expect(document.getState().rig).toBe(shown);
    expect(server.asked.length).toBe(before);
    await settle();
    expect(server.asked.at(-1)).toMatchObject({ base: 2, edits: [] });
    expect([seen.includes(true), answers.getState().about]).toEqual([false, shown]);
  });

  it("are asked again by themselves after a fault, and are named by the night that they are about", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    server.down = true;
    answers.setConditions({ water: "wet" });
    await vi.advanceTimersByTimeAsync(100);
    expect(answers.getState()).toMatchObject({
      stale: true,
      problem: expect.any(String),
      night: { water: "drained" },
      conditions: { water: "wet" },
    });
    server.down = false;
    await settle();
    expect(answers.getState()).toMatchObject({ stale: false, problem: null, night: { water: "wet" } });
    // A plan that the rig has not any more is one in which nothing is planned.
    answers.setConditions({ planId: "gone" });
    await settle();
    expect(server.asked.at(-1)?.conditions).toMatchObject({ water: "wet", planId: null });
    expect(answers.getState()).toMatchObject({ stale: false, problem: null });
    // Nor is there a mode that was removed, or one of valves that are gone.
    answers.setConditions({ modeId: "gone", heatSettings: null });
    await settle();
    expect(server.asked.at(-1)?.conditions).toMatchObject({ water: "wet", modeId: null });
    answers.setConditions({ modeId: null, heatSettings: [{ id: "no-valve", position: "closed" }] });
    await settle();
    expect(server.asked.at(-1)?.conditions).toMatchObject({ water: "wet", heatSettings: null });
    // The night is remembered on this device for this rig.
    expect(createAnswers(createDocument("test", server, shelf), server).getState().conditions?.water).toBe("wet");
  });

  it("show an hour that was looked at before the first answer came", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    // While the first question is under way.
    vi.spyOn(server, "answers").mockImplementationOnce(async (ask) => {
      answers.lookAt(2);
      return server.answers(ask);
    });
    await document.open();
    await settle();
    expect(answers.getState()).toMatchObject({ stale: false, shown: { freezeLadder: { zones: [{ airC: 2 }] } } });
  });

  it("show the hour that is looked at: asked for once, and the morning again without a question", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    const air = () => answers.getState().shown?.freezeLadder.zones[0]?.airC;
    const before = server.asked.length;
    answers.lookAt(3);
    expect(air()).toBe(-5);
    await settle();
    expect([air(), answers.getState().answers?.freezeLadder.zones[0]?.airC]).toEqual([1, -5]);
    expect(server.asked.slice(before).map((a) => [a.wanted.includes("hourly"), a.since ?? null])).toEqual([[true, null]]);
    answers.lookAt(4);
    expect(air()).toBe(0);
    answers.lookAt(null);
    expect(air()).toBe(-5);
    await settle();
    expect(server.asked.length).toBe(before + 1);
  });

  it("come as what differs from those that are held, on a night with a plan too", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    // Drawn before the server has said anything of it.
    document.commit("Planned", [added("plans", { ...planOf(night, "p", "Tonight", []), events: [{ id: "away", kind: "away", atH: 1 }] })]);
    expect(document.getState().rig?.plans).toMatchObject([{ id: "p", events: [{ id: "away" }] }]);
    answers.setConditions({ planId: "p" });
    await settle();
    document.show(movedBy(rig, [bend], { xM: 0, yM: 0, zM: 0.01 }, () => false));
    await settle();
    expect(server.asked.at(-1)).toMatchObject({ since: 2, conditions: { planId: "p" } });
  });

  it("are not asked for again what was refused, until something is changed", async () => {
    const document = createDocument("test", server, shelf);
    const answers = createAnswers(document, server);
    await document.open();
    await settle();
    server.refuse = (edits) => edits.length > 0;
    document.show(movedBy(rig, [bend], { xM: 0, yM: 0, zM: 0.01 }, () => false));
    await settle();
    const before = server.asked.length;
    expect(answers.getState().problem).toBe("too large");
    await vi.advanceTimersByTimeAsync(120_000);
    expect(server.asked.length).toBe(before);
    document.letGo();
    await settle();
    expect(answers.getState()).toMatchObject({ stale: false, problem: null });
  });
});
