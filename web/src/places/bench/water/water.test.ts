// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from "vitest";
import type { Schema } from "../../../api/client";
import { type Hung, placeTags } from "../../../drawing/discs";
import { type Knob, knobRoom } from "../../../drawing/FlowMarks";
import { overlap } from "../../../drawing/labels";
import { nextOf } from "./useWater";
import { ofRig, useWaterStore } from "./waterStore";

const stock = (...positions: [string, boolean][]) =>
  ({ positions: positions.map(([id, passes]) => ({ id, name: id, passes })) }) as unknown as Schema["StockPart"];

describe("the rig in use", () => {
  beforeEach(() => useWaterStore.setState({ rigId: null, task: "tank", scenarioId: null, turned: {}, level: null }));
  const of = (id: string) => ofRig(id)(useWaterStore.getState());

  it("a hand turns round the positions, and leaves half open to draining", () => {
    expect(nextOf(stock(["open", true], ["half-open", true], ["closed", false]), "open")).toBe("closed");
    expect(nextOf(stock(["open", true], ["half-open", true], ["closed", false]), "closed")).toBe("open");
    expect(nextOf(stock(["open", true], ["half-open", true], ["closed", false]), "half-open")).toBe("open");
    expect(nextOf(stock(["right", true], ["left", true], ["all", true], ["closed", false]), "left")).toBe("all");
  });

  it("what is turned belongs to its rig, and goes when another task is chosen", () => {
    const { turn, choose, fill } = useWaterStore.getState();
    turn("sparrow", "mixer", "open");
    fill("sparrow", 0.4);
    turn("sparrow", "pump", "off");
    expect(of("sparrow")).toMatchObject({ turned: { mixer: "open", pump: "off" }, level: 0.4 });
    expect(of("lantern")).toBeNull();
    turn("lantern", "tap", "open");
    expect(of("lantern")).toMatchObject({ turned: { tap: "open" }, level: null, task: "tank" });
    choose("lantern", "town");
    expect(of("lantern")).toMatchObject({ task: "town", turned: {} });
  });

  it("knobs lie on no other, with their figures; what is open comes first", () => {
    const knob = (partId: string, figure: string | null): Knob => ({
      partId,
      name: partId,
      kind: "tap",
      on: figure !== null,
      shut: false,
      figure,
      chosen: figure !== null,
    });
    const knobs = Array.from({ length: 12 }, (_, i) => knob(`k${i}`, i % 3 === 0 ? "5.3 L/min" : null));
    const at = (y: number) => (id: string) => ({ x: 200 + Number(id.slice(1)) * 9, y });
    const placed = placeTags(knobs, at(200), knobRoom) as Hung<Knob>[];
    expect(placed.filter((k) => k.figure)).toHaveLength(4);
    expect(placed.length).toBeGreaterThan(6);
    // None is cut off by the edge of the drawing.
    const high = placeTags(knobs, at(12), knobRoom, { width: 400, height: 300 });
    expect(high.length).toBeGreaterThan(3);
    for (const k of high.filter((k) => !k.chosen)) expect(knobRoom(k).y).toBeGreaterThanOrEqual(0);
    placed.forEach((a, i) => {
      for (const b of placed.slice(i + 1)) expect(overlap(knobRoom(a), knobRoom(b))).toBe(false);
    });
  });
});
