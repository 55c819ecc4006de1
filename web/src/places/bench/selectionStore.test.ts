import { expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { rig } from "../../test/rig";
import { createSelection } from "./selectionStore";

const finding = (place: object, runIds: string[]) =>
  ({ id: "f", runIds, place: { runId: null, pointId: null, partId: null, zoneId: null, ...place } }) as unknown as Schema["Finding"];
const bend = { kind: "point", runId: "upper", pointId: "b1" } as const;
const tee = { kind: "part", partId: "tee" } as const;

it("takes one thing everywhere, several with Shift, and leaves a finding open while what is taken belongs to it", () => {
  const selection = createSelection();
  selection.takeFinding(finding({ runId: "upper", pointId: "b1" }, ["upper"]));
  expect(selection.getState()).toMatchObject({ things: [bend], findingId: "f", stripRunId: "upper" });
  selection.take({ kind: "point", runId: "upper", pointId: "to" });
  expect(selection.getState().findingId).toBe("f");
  selection.take(bend, true);
  selection.take(tee, true);
  selection.take(bend, true);
  expect(selection.getState().things).toEqual([{ kind: "point", runId: "upper", pointId: "to" }, tee]);
  selection.take(tee);
  // The strip keeps the run that was last in hand.
  expect(selection.getState()).toMatchObject({ things: [tee], findingId: null, stripRunId: "upper" });
});

it("opens the part that a finding names, not the run beside it", () => {
  const selection = createSelection();
  selection.takeFinding(finding({ partId: "tee" }, ["upper"]));
  expect(selection.getState()).toMatchObject({ things: [tee], stripRunId: "upper" });
});

it("takes what is being made as soon as it is there, and lets go of what is gone", () => {
  const selection = createSelection();
  selection.take(bend);
  selection.takeWhenThere({ kind: "part", partId: "new" });
  selection.after(rig);
  expect(selection.getState().things).toEqual([bend]);
  selection.after({ ...rig, parts: [...rig.parts, { ...(rig.parts[0] as Schema["Part"]), id: "new" }], runs: [] });
  expect(selection.getState()).toMatchObject({ things: [{ kind: "part", partId: "new" }], stripRunId: null });
});
