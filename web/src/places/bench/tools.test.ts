// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { rig } from "../../test/rig";
import { bendAfter, freeSpot, teeAfter } from "./drawingTools";
import { movedByKey, snapped, stepsOf } from "./moving";
import { rank } from "./Palette";

const upper = rig.runs[0] as Schema["Run"];
const key = (name: string, shiftKey = false) => ({ key: name, shiftKey });

describe("keys", () => {
  it("move by the reader's own unit: 5 and 1 mm, or a quarter and a sixteenth of an inch", () => {
    expect(movedByKey(key("ArrowUp"), "metric", null, "zM")).toEqual({ xM: 0, yM: 0, zM: 0.005 });
    expect(movedByKey(key("ArrowDown", true), "metric", null, "zM")?.zM).toBe(-0.001);
    expect(movedByKey(key("ArrowUp"), "usCustomary", null, "zM")?.zM).toBeCloseTo(0.00635);
    expect(movedByKey(key("ArrowUp", true), "usCustomary", null, "zM")?.zM).toBeCloseTo(0.0015875);
    expect(movedByKey(key("PageDown"), "usCustomary", "xM", "zM")?.zM).toBeCloseTo(-0.0254);
    expect(stepsOf("usCustomary")).toMatchObject({ words: "1/4 in", fineWords: "1/16 in" });
  });

  it("mean the axes of the view that they are pressed in, and nothing beyond them", () => {
    expect(movedByKey(key("ArrowRight"), "metric", "xM", "yM")).toEqual({ xM: 0.005, yM: 0, zM: 0 });
    expect(movedByKey(key("ArrowUp"), "metric", "xM", "yM")).toEqual({ xM: 0, yM: 0.005, zM: 0 });
    expect(movedByKey(key("ArrowRight"), "metric", null, "zM")).toBeNull();
    expect(movedByKey(key("Enter"), "metric", "xM", "zM")).toBeNull();
  });

  it("and drags snap to whole steps", () => {
    expect(snapped(0.2134, 0.005)).toBeCloseTo(0.215);
    expect(snapped(0.2134, 0.0254 / 4) / (0.0254 / 4)).toBeCloseTo(34);
  });
});

describe("what is typed to find something", () => {
  const best = (typed: string) => {
    const items = [
      ["pump bypass valve", "part"],
      ["pump", "part"],
      ["pump set", "place", "set"],
      ["ball valve 15 mm", "place"],
      ["grey dump valve", "place"],
    ];
    const scores = items.map((keywords) => rank("x", typed, keywords));
    return Math.max(...scores) === 0 ? null : items[scores.indexOf(Math.max(...scores))]?.[0];
  };
  it("names a thing before what merely holds its words, in any order", () => {
    expect(best("pump set")).toBe("pump set");
    expect(best("pump")).toBe("pump");
    expect(best("place ball valve")).toBe("ball valve 15 mm");
    expect(best("valve grey")).toBe("grey dump valve");
    expect(best("bathtub")).toBeNull();
  });
});

describe("tools", () => {
  it.each([
    ["from", null, 0.5],
    ["b1", "b1", 0.3],
    // Behind the last point there is nothing: it goes before it.
    ["to", "b1", 0.3],
  ])("put a bend half way after %s", (pointId, after, zM) => {
    const { edits, thing } = bendAfter(rig, upper, pointId);
    const [edit] = edits as unknown as [Schema["EditInsertBend"]];
    expect([edit.after, edit.bend.at.zM]).toEqual([after, expect.closeTo(zM)]);
    expect(thing).toEqual({ kind: "point", runId: "upper", pointId: edit.bend.id });
  });

  it("find room beside what stands in the way, at the same height", () => {
    const [part] = rig.parts;
    if (!part) throw new Error("no part");
    const at = freeSpot(rig, part.box.size, part.box.at);
    const apart = (["xM", "yM", "zM"] as const).some((a) => Math.abs(at[a] - part.box.at[a]) >= part.box.size[a] - 1e-6);
    expect([apart, at.zM]).toEqual([true, part.box.at.zM]);
    expect(freeSpot({ ...rig, parts: [] }, part.box.size, part.box.at)).toEqual(part.box.at);
  });

  it("put in a tee under ids of its own each time", () => {
    const [one, other] = [teeAfter(rig, upper, "b1"), teeAfter(rig, upper, "b1")];
    // At a bend it is safe in the bend's place, and the bend goes.
    const at = upper.bends.find((b) => b.id === "b1")?.at;
    expect(one.edits).toMatchObject([
      { kind: "route", runId: "upper" },
      { kind: "tee", runId: "upper", after: null, at },
    ]);
    expect(one.thing).not.toEqual(other.thing);
  });
});
