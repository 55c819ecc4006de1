import { expect, it } from "vitest";
import { drain } from "../test/rig";
import { changedAnswer } from "./answers";

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
