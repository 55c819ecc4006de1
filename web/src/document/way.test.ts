import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { rig } from "../test/rig";
import type { Rig } from "./geometry";
import { wayOf, wayPoints } from "./way";

const [first] = rig.runs as [Schema["Run"]];
const line = (id: string, from: string, to: string, service: Schema["Service"] = "cold"): Schema["Run"] => ({
  ...first,
  id,
  service,
  from: { part: from, port: "a", at: null },
  to: { part: to, port: "b", at: null },
  bends: [],
});
/** Tank → pump → tee → tap, tee → heater → mixer, tee → drain; and a waste line that has nothing to do with them. */
const drawn: Rig = {
  ...rig,
  runs: [
    line("suction", "tank", "pump"),
    line("main", "pump", "tee"),
    line("tap", "tee", "tap"),
    line("heater", "tee", "heater"),
    line("hot", "heater", "mixer", "hot"),
    line("drain", "tee", "cock"),
    line("waste", "sink", "grey", "waste"),
  ],
};
const leads = (runId: string, leadsTo: string | null) => ({ runId, leadsTo }) as Schema["RunDrain"];
const drains = [leads("hot", "heater"), leads("heater", "drain"), leads("tap", "drain"), leads("main", "drain")];
const ids = (set: ReadonlySet<string> | undefined) => [...(set ?? [])].sort();

describe("the way of what is selected", () => {
  it("goes back to the tank, on to where the line ends, and to its drain; nothing else is on it", () => {
    const way = wayOf(drawn, [{ kind: "run", runId: "hot" }], drains, (id) => id === "tank");
    expect(ids(way?.runs)).toEqual(["drain", "heater", "hot", "main", "suction"]);
    expect(ids(way?.parts)).toEqual(["cock", "heater", "mixer", "pump", "tank", "tee"]);
  });

  it("of a part is that of its lines, and of nothing there is none", () => {
    expect(ids(wayOf(drawn, [{ kind: "part", partId: "grey" }], drains, () => false)?.runs)).toEqual(["waste"]);
    expect(wayOf(drawn, [], drains, () => false)).toBeNull();
    expect(wayOf(drawn, [{ kind: "zone", zoneId: "garage" }], drains, () => false)).toBeNull();
  });

  it("ends, though lines lead in a ring", () => {
    const ring = { ...drawn, runs: [line("a", "p", "q"), line("b", "q", "p")] };
    expect(ids(wayOf(ring, [{ kind: "run", runId: "a" }], [leads("a", "b"), leads("b", "a")], () => false)?.runs)).toEqual(["a", "b"]);
  });

  it("is walked point by point, from where the line begins to its drain; a joint counts once", () => {
    const words = (runId: string, drained: Schema["RunDrain"][], of = rig) =>
      wayPoints(of, runId, drained).map((p) => `${p.runId}:${p.pointId}`);
    const back = { ...leads("lower", null), reversed: true };
    expect(words("upper", [leads("upper", "lower"), back])).toEqual(["upper:from", "upper:b1", "upper:to", "lower:from"]);
    const [upper, lower] = rig.runs as [Schema["Run"], Schema["Run"]];
    const onwards = { ...rig, runs: [{ ...upper, from: upper.to, to: upper.from }, lower] };
    expect(words("upper", [], onwards)).toEqual(["lower:from", "lower:to", "upper:b1", "upper:to"]);
  });
});
