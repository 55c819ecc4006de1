import { expect, it } from "vitest";
import { drain } from "../test/rig";
import { changedAnswer, hourRead, ladderAt } from "./answers";

it("puts an answer together from what is held and what differs, and keeps what is the same", () => {
  const [first, ...others] = drain.runs;
  const other = { ...first, retainedL: 9 };
  const made = changedAnswer(drain, {
    values: { retainedL: 9 },
    lists: {
      runs: [
        { from: 0, count: 0, item: other },
        { from: 1, count: others.length, item: null },
      ],
    },
  });
  expect(made).toEqual({ ...drain, retainedL: 9, runs: [other, ...others] });
  expect(made.pools).toBe(drain.pools);
  expect(made.runs[1]).toBe(drain.runs[1]);
});

it("takes air, water and ice of the ladder from the step nearest to an hour", () => {
  const rung = { id: "a", morningC: -4, morningIce: 1, firstIceS: 7200 };
  const ladder = { rungs: [rung, { ...rung, id: "new" }], zones: [{ zoneId: "room", airC: -5, heaterW: 0 }], endS: 43200 };
  const hourly = { stepH: 2, steps: 3, zones: [{ zoneId: "room", c: [8, 1, -2] }], rungs: [{ id: "a", c: [10, 3, 0], ice: [0, 0, 0.4] }] };
  const at = ladderAt(ladder as never, hourly, 4);
  expect(at.zones[0]?.airC).toBe(-2);
  expect(at.rungs[0]).toMatchObject({ morningC: 0, morningIce: 0.4, firstIceS: 7200 });
  // What is not in it stays as it is in the morning.
  expect(at.rungs[1]).toMatchObject({ morningC: -4, morningIce: 1 });
  expect(ladder.rungs[0]).toMatchObject({ morningC: -4 });
  // The hour that is named is the one that is drawn: 3 is read at 4, and an hour of a longer night is the last of this one.
  for (const [asked, read] of [
    [3, 4],
    [5, 4],
    [30, 4],
  ] as const) {
    expect(hourRead(hourly, asked)).toBe(read);
    expect(ladderAt(ladder as never, hourly, asked)).toEqual(at);
  }
});
