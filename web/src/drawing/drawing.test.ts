import { describe, expect, it } from "vitest";
import { rig } from "../test/rig";
import { placeDiscs } from "./discs";
import { placeLabels, type Wanted } from "./labels";
import { pick, within } from "./pick";
import { extentOf, type Frame, part, pathOf, rectOf, toPx, wheelsOf } from "./projection";
import { colourOf, markOf } from "./temperature";

const frame: Frame = { width: 400, height: 300, scale: 100, alongM: 1.5, otherM: 1 };
const label = (id: string, x: number, y: number, more: Partial<Wanted> = {}): Wanted => ({
  id,
  text: "a name",
  x,
  y,
  width: 10,
  height: 10,
  rank: 1,
  ...more,
});

describe("labels", () => {
  const box = (l: { x: number; y: number; anchor: string; text: string }) => {
    const width = l.text.length * 5.9 + 6;
    const left = l.anchor === "start" ? l.x : l.anchor === "end" ? l.x - width : l.x - width / 2;
    return { left, right: left + width, top: l.y - 12, bottom: l.y + 3 };
  };

  it("never lie on each other or off the drawing, however many want a place", () => {
    const wanted = Array.from({ length: 60 }, (_, i) => label(`l${i}`, (i * 67) % 380, (i * 41) % 280));
    const placed = placeLabels(wanted, [], frame).map(box);
    expect(placed.length).toBeGreaterThan(15);
    for (const a of placed) {
      expect(a.left).toBeGreaterThan(0);
      expect(a.right).toBeLessThan(400);
      for (const b of placed) {
        if (a === b) continue;
        expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
      }
    }
  });

  it("come in the order of their rank and keep off what is taken", () => {
    const taken = [{ x: 0, y: 0, width: 400, height: 150 }];
    const placed = placeLabels([label("high", 200, 100), label("low", 200, 200)], taken, frame);
    expect(placed.map((p) => p.id)).toEqual(["low"]);
    const rivals = [label("second", 200, 150, { rank: 2 }), label("first", 200, 150, { rank: 0 })];
    expect(placeLabels(rivals, [], frame)[0]?.id).toBe("first");
  });

  it("lie on no line: beside what they name, else away from it with a leader, else left out but for one in hand", () => {
    const line = [
      { x: 150, y: 140 },
      { x: 260, y: 140 },
    ];
    const [free] = placeLabels([label("l", 200, 145)], [], frame);
    const [kept] = placeLabels([label("l", 200, 145)], [], frame, [line]);
    expect(free?.y).toBeLessThan(145);
    expect(kept?.y).toBeGreaterThan(145);
    const wall = (y: number) => [
      { x: 100, y },
      { x: 300, y },
    ];
    const near = [125, 130, 135, 145, 150, 155, 160, 165].map(wall);
    expect(placeLabels([label("l", 200, 145)], [], frame, near)).toEqual([]);
    expect(placeLabels([label("l", 200, 145, { led: true })], [], frame, near)[0]?.leader).toBeDefined();
    expect(placeLabels([label("l", 200, 145, { rank: -1 })], [], frame, near)).toHaveLength(1);
  });
});

describe("projection", () => {
  const place = { xM: 2, yM: 0.5, zM: 1.5 };

  it("puts the cab to the right in both drawings, the far side up in plan, the roof up from the side", () => {
    expect(toPx("plan", frame, place)).toEqual({ x: 250, y: 200 });
    expect(toPx("side", frame, place)).toEqual({ x: 250, y: 100 });
    expect(toPx("plan", frame, { ...place, xM: 3 }).x).toBe(350);
  });

  it("draws boxes the right way round and shows all of a rig", () => {
    const rect = rectOf("side", frame, { at: place, size: { xM: 1, yM: 1, zM: 0.5 } });
    expect(rect).toEqual({ x: 250, y: 50, width: 100, height: 50 });
    expect(extentOf(rig, "side")).toEqual({ lowX: 0, highX: 3, lowO: 0, highO: 2 });
    const arch = {
      id: "arch",
      name: "arch",
      kind: "wheelArch" as const,
      box: { at: { xM: 1, yM: 0, zM: 0 }, size: { xM: 0.8, yM: 0.2, zM: 0.3 } },
    };
    const withWheel = { ...rig, shell: { ...rig.shell, obstacles: [arch] } };
    const [wheel] = wheelsOf(withWheel.shell);
    expect(extentOf(withWheel, "side").lowO).toBeCloseTo((wheel?.centre.zM ?? 0) - (wheel?.radiusM ?? 0));
    // A cab reaches forward of the load bay, with a wheel of its own; a trailer has none there.
    const van = { ...withWheel, shell: { ...withWheel.shell, front: "bonnet" as const } };
    expect(extentOf(van, "side").highX).toBeGreaterThan(4);
    expect([van, { ...van, shell: { ...van.shell, front: "drawbar" as const } }].map((v) => wheelsOf(v.shell).length)).toEqual([2, 1]);
    expect(extentOf(withWheel, "plan").lowO).toBe(0);
  });

  it("cuts lengths and writes paths", () => {
    const [a, b] = part({ xM: 0, yM: 0, zM: 0 }, { xM: 2, yM: 4, zM: 8 }, 0.25, 0.75);
    expect(a).toEqual({ xM: 0.5, yM: 1, zM: 2 });
    expect(b).toEqual({ xM: 1.5, yM: 3, zM: 6 });
    expect(
      pathOf([
        { x: 1, y: 2 },
        { x: 3.06, y: 4 },
      ]),
    ).toBe("M1.0 2.0L3.1 4.0");
  });
});

describe("a finger", () => {
  const px = (xM: number, zM: number) => toPx("side", frame, { xM, yM: 0, zM });

  it("takes a point of the run in hand before the line, a line before the part behind it, a part before its zone", () => {
    expect(pick(rig, "side", frame, px(1.05, 0.24), "upper")).toEqual({ kind: "point", runId: "upper", pointId: "b1" });
    expect(pick(rig, "side", frame, px(1.05, 0.24), null)).toEqual({ kind: "run", runId: "upper" });
    expect(pick(rig, "side", frame, px(0.05, 0.87), null)).toEqual({ kind: "part", partId: "tap" });
    expect(pick(rig, "side", frame, px(1.5, 1.5), null)).toBeNull();
  });

  it("takes all within a rectangle", () => {
    const found = within(rig, "side", frame, px(0.9, 0.1), px(2.2, 0.6));
    expect(found).toEqual([
      { kind: "part", partId: "tee" },
      { kind: "point", runId: "upper", pointId: "b1" },
    ]);
  });
});

describe("discs", () => {
  const finding = (id: string, xM: number) => ({ id, title: id, place: { at: { xM, yM: 0, zM: 0 } } }) as never;
  const place = (all: boolean, chosen: string | null = null) =>
    placeDiscs(
      [0, 0.1, 1, 2, 3, 3.5, 3.6].map((x, i) => finding(`f${i}`, x)),
      chosen,
      all,
      (p) => toPx("side", frame, p),
      () => true,
    );

  it("are those of the worst and the chosen from afar, all close up, one where they would collide, led by the chosen", () => {
    expect(place(false).map((d) => d.findings.map((f) => f.id))).toEqual([["f0", "f1"], ["f2"], ["f3"], ["f4"]]);
    expect(place(false, "f6").at(-1)).toMatchObject({ number: 7 });
    expect(place(true, "f1")[0]).toMatchObject({ number: 2, findings: [{ id: "f1" }, { id: "f0" }] });
    expect(place(true).flatMap((d) => d.findings)).toHaveLength(7);
  });
});

describe("colour", () => {
  it("has a mark beside it wherever it could be taken for another", () => {
    const line = [
      { x: 0, y: 0 },
      { x: 80, y: 0 },
    ];
    const marks = (["near", "warm", "hot"] as const).map((c) => markOf(c, line));
    expect(new Set(marks).size).toBe(3);
    expect(marks.every((m) => m.length > 0)).toBe(true);
    expect(markOf("safe", line)).toBe("");
  });

  it.each([
    [-3, 0, "ice"],
    [0, 0.2, "ice"],
    [2, 0, "near"],
    [12, 0, "safe"],
    [30, 0, "warm"],
    [60, 0, "hot"],
  ])("of water at %d °C with %d ice is that of %s", (celsius, ice, colour) => {
    const numbers = { nearFreezingC: 4, warmC: 25, hotC: 45, holdC: 5, hottestOutletC: 49, dryRunL: 0, farthestM: 30 };
    expect(colourOf(numbers, celsius, ice)).toBe(colour);
  });
});
