import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { courseOf } from "../document/geometry";
import { rig } from "../test/rig";
import { PathBrush } from "./brushes";
import { type Lens, lineColour } from "./lens";
import type { Frame } from "./projection";
import { paintPart, paintRun, paintShell, type RunMark, type Sheet } from "./sheetPaint";

const frame: Frame = { width: 400, height: 300, scale: 100, alongM: 1.5, otherM: 1 };
const numbers = { nearFreezingC: 3, warmC: 25, hotC: 45 } as Schema["TradeNumbers"];
const sheet = (lens: Lens, bare = false): Sheet => ({ view: "side", frame, lens, numbers, bare });
const [run] = rig.runs as [Schema["Run"]];
const mark: RunMark = { run, course: courseOf(rig, run), drain: undefined, rungs: [], reach: undefined, chosen: false, pale: false };
const painted = (paint: (out: PathBrush) => void) => {
  const out = new PathBrush("thing");
  paint(out);
  return out.paths;
};

describe("the sheet", () => {
  it("gives a line the colour of what it carries under Water alone, and never that of a verdict", () => {
    const services: Schema["Service"][] = ["cold", "hot", "waste", "coolant", "fill", "vent", "overflow"];
    const [lines, drain] = [services.map((s) => lineColour("water", s)), services.map((s) => lineColour("drain", s))];
    expect(new Set(drain).size).toBe(1);
    expect(new Set(lines.slice(0, 5)).size).toBe(5);
    expect(lines.join()).not.toMatch(/verdict|warm|ice/);
    const strokes = (lens: Lens) => painted((out) => paintRun(out, mark, sheet(lens))).map((p) => p.style.stroke);
    expect(strokes("water")).toContain(lineColour("water", run.service));
    expect(strokes("cold")).toContain("var(--pipe)");
  });

  it("paints water that stays in a strong blue where the drain-down says it is, and only there", () => {
    const station = { id: "a", wetFrom: 0.25, wetTo: 0.75, airlockedFrom: 0, airlockedTo: 0, direction: 1, fall: 0.02 };
    const drain = { runId: run.id, stations: [station, { ...station, wetFrom: 0, wetTo: 0 }] } as Schema["RunDrain"];
    const wet = painted((out) => paintRun(out, { ...mark, drain }, sheet("drain"))).filter((p) => p.style.stroke === "var(--stays)");
    expect(wet).toHaveLength(1);
    expect(painted((out) => paintRun(out, mark, sheet("drain"))).some((p) => p.style.stroke === "var(--stays)")).toBe(false);
  });

  it("paints ice as a hatch, names what each mark is of, and shows how full a part is", () => {
    const rung = { id: "r", course: mark.course.map((p) => p.at), morningC: -2, morningIce: 0.4 } as Schema["Rung"];
    const iced = painted((out) => paintRun(out, { ...mark, rungs: [rung] }, sheet("cold")));
    expect(iced.map((p) => p.style.stroke)).toContain("url(#ice-hatch)");
    expect(new Set(iced.map((p) => p.name))).toEqual(new Set(["thing"]));
    const [part] = rig.parts as [Schema["Part"]];
    const tank = { part, look: "body" as const, rung: undefined, chosen: false, pale: false };
    const water = (share: number) =>
      painted((out) => paintPart(out, { ...tank, share }, sheet("drain"))).filter((p) => p.style.fill === "var(--stays)");
    expect(water(0.5)).toHaveLength(1);
    expect(water(0)).toHaveLength(0);
  });

  it("draws what is before the load bay, where the rig says what that is", () => {
    const shell = (front: Schema["Shell"]["front"]) =>
      painted((out) => paintShell(out, { ...rig.shell, front }, "side", frame, false, null)).length;
    expect(shell("bonnet")).toBeGreaterThan(shell(null));
    expect(shell("drawbar")).toBeGreaterThan(shell(null));
  });
});
