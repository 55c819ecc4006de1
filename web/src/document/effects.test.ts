import { describe, expect, it } from "vitest";
import { rig } from "../test/rig";
import { applyEffect, drawn, sharedWith } from "./effects";

const bend = (id: string, zM: number) => ({ id, at: { xM: 1, yM: 0, zM } });
const nothing = { set: [], added: [], removed: [] };

describe("an effect", () => {
  it("sets values by path and leaves the rest the same object", () => {
    const made = applyEffect(rig, { ...nothing, set: [{ path: "runs/upper/bends/b1/at/zM", before: 0.2, after: 0.3 }] });
    expect(made.runs[0]?.bends[0]?.at).toEqual({ xM: 1, yM: 0, zM: 0.3 });
    expect(made.parts).toBe(rig.parts);
    expect(rig.runs[0]?.bends[0]?.at.zM).toBe(0.2);
    expect(applyEffect(rig, { ...nothing, set: [{ path: "name", before: "Test", after: "New" }] }).name).toBe("New");
  });

  it("adds and removes things by id, keeps lists in order of id, and bends in the order that comes with it", () => {
    const part = { ...rig.parts[0], id: "bowl" };
    const added = applyEffect(rig, { ...nothing, added: [{ list: "parts", thing: part }] });
    expect(added.parts.map((p) => p.id)).toEqual([...rig.parts.map((p) => p.id), "bowl"].sort());
    expect(applyEffect(added, { ...nothing, removed: [{ list: "parts", thing: part }] }).parts).toEqual(
      [...rig.parts].sort((a, b) => (a.id < b.id ? -1 : 1)),
    );
    const bent = applyEffect(rig, {
      ...nothing,
      added: [{ list: "runs/upper/bends", thing: bend("a0", 0.5) }],
      set: [{ path: "runs/upper/bends/#order", before: ["b1"], after: ["b1", "a0"] }],
    });
    expect(bent.runs.find((r) => r.id === "upper")?.bends.map((b) => b.id)).toEqual(["b1", "a0"]);
  });

  it("draws value edits and undone ones at once, and leaves others to the server", () => {
    const raised = drawn(rig, [{ kind: "change", thing: "runs/upper/bends/b1", values: { at: { xM: 1, yM: 0, zM: 0.7 } } }]);
    expect(raised.runs[0]?.bends[0]?.at.zM).toBe(0.7);
    const back = { ...nothing, set: [{ path: "runs/upper/bends/b1/at/zM", before: 0.7, after: 0.2 }] };
    expect(drawn(raised, [{ kind: "restore", what: { text: "", values: [] }, effect: back }]).runs[0]?.bends[0]?.at.zM).toBe(0.2);
    expect(drawn(rig, [{ kind: "remove", thing: "parts/tap" }])).toEqual(rig);
    expect(drawn(rig, [{ kind: "change", thing: "rig", values: { name: "Renamed" } }]).name).toBe("Renamed");
  });

  it("is made of the objects that stood before wherever both say the same", () => {
    const raised = applyEffect(rig, { ...nothing, set: [{ path: "runs/upper/bends/b1/at/zM", before: 0.2, after: 0.3 }] });
    expect(sharedWith(structuredClone(rig), rig)).toBe(rig);
    const made = sharedWith(structuredClone(raised), rig);
    expect(made).toEqual(raised);
    expect(made.parts).toBe(rig.parts);
    expect(made.runs.filter((r, i) => r !== rig.runs[i]).map((r) => r.id)).toEqual(["upper"]);
    expect(sharedWith({ a: 1 }, { a: 1, b: undefined })).toEqual({ a: 1 });
  });
});
