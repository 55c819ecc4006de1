import { expect, it } from "vitest";
import { rig } from "../test/rig";
import { nothingHidden, shownOf } from "./shown";

it("leaves out a service with the parts that only it meets, and all that is not in a room", () => {
  expect(shownOf(rig, nothingHidden)).toBe(rig);
  const runs = rig.runs.map((r) => (r.id === "upper" ? { ...r, service: "hot" as const } : r));
  const cold = shownOf({ ...rig, runs }, { services: ["hot"], zoneId: null });
  expect(cold.runs.map((r) => r.id)).toEqual(["lower"]);
  // The tap hangs on the hot run alone; the tee does not.
  expect(cold.parts.map((p) => p.id)).toEqual(["tee", "tank"]);
  const box = { at: { xM: 2.4, yM: 0, zM: 0 }, size: { xM: 0.5, yM: 1, zM: 0.3 } };
  const zones = [{ id: "bay", name: "bay", kind: "garage" as const, box, airChangesPerHour: 1, faces: [], openings: [], heater: null }];
  const bay = shownOf({ ...rig, shell: { ...rig.shell, zones } }, { services: [], zoneId: "bay" });
  expect(bay.runs.map((r) => r.id)).toEqual(["lower"]);
  expect(bay.parts.map((p) => p.id)).toEqual(["tee", "tank"]);
  // A room that is gone hides nothing.
  expect(shownOf(rig, { services: [], zoneId: "bay" })).toBe(rig);
});
