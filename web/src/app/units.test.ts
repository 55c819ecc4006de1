// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import type { Schema } from "../api/client";
import { clock, printBy, say } from "./units";

type Rule = Schema["PrintRule"];
const rule = (
  quantity: Rule["quantity"],
  system: Rule["system"],
  below: number,
  symbol: string,
  factor: number,
  decimals: number,
  more: Partial<Rule> = {},
): Rule => ({
  quantity,
  system,
  below,
  symbol,
  factor,
  offset: 0,
  decimals,
  denominator: 1,
  ...more,
});

const rules: Rule[] = [
  rule("length", "metric", 2, "mm", 0.001, 0),
  rule("length", "metric", 1e300, "m", 1, 2),
  rule("length", "usCustomary", 1.2192, "in", 0.0254, 0, { denominator: 16 }),
  rule("length", "usCustomary", 1e300, "ft", 0.3048, 0, { denominator: 16 }),
  rule("temperature", "usCustomary", 1e300, "°F", 5 / 9, 0, { offset: -32 }),
  rule("fall", "metric", 1e300, "%", 0.01, 1),
  rule("number", "metric", 1e300, "", 1, 2),
];

describe("printing", () => {
  const metric = printBy(rules, "metric");
  const us = printBy(rules, "usCustomary");

  it("takes the first rule that holds the value", () => {
    expect(metric(0.34, "length")).toBe("340 mm");
    expect(metric(2.5, "length")).toBe("2.50 m");
    expect(metric(0.34, "length", true)).toBe("340");
  });

  it("writes inches as fractions in their lowest terms", () => {
    expect(us(0.34, "length")).toBe("13 3/8 in");
    expect(us(0.0127, "length")).toBe("1/2 in");
    expect(us(0.0254, "length")).toBe("1 in");
    expect(us(-0.34, "length")).toBe("−13 3/8 in");
    expect(us(0.0001, "length")).toBe("0 in");
    expect([us(3, "length"), us(2.7432, "length"), us(-3, "length")]).toEqual(["9 ft 10 1/8 in", "9 ft 0 in", "−9 ft 10 1/8 in"]);
  });

  it("minds offsets, signs that stick to their number, and no minus before a zero", () => {
    expect(us(-10, "temperature")).toBe("14 °F");
    expect(metric(-0.0002, "fall")).toBe("0.0%");
    expect(metric(-0.228, "fall")).toBe("−22.8%");
    expect([metric(3, "number"), metric(2.5, "number"), metric(20, "number")]).toEqual(["3", "2.5", "20"]);
  });

  it("says never for what never comes, and nothing without a rule", () => {
    expect(metric(null, "length")).toBe("never");
    expect(metric(Number.POSITIVE_INFINITY, "length")).toBe("never");
    expect(metric(3, "volume")).toBe("");
  });

  it("fills sentences in the reader's units", () => {
    const sentence = {
      text: "{0} of it falls by {1}.",
      values: [
        { value: 0.5, quantity: "length" as const },
        { value: 0.01, quantity: "fall" as const },
      ],
    };
    expect(say(sentence, metric)).toBe("500 mm of it falls by 1.0%.");
    // A name may have braces of its own: they come doubled.
    expect(say({ ...sentence, text: "{{0}} falls by {1}" }, metric)).toBe("{0} falls by 1.0%");
  });
});

describe("the clock", () => {
  it.each([
    [22, 0, false, "22:00"],
    [22, 2 * 3600 + 90, false, "00:00 next day"],
    [22, 8 * 3600 + 500, false, "06:15 next day"],
    [22, 50 * 3600, false, "00:00, day 4"],
    [22, 2 * 3600, true, "12:00 am next day"],
    [10, 3 * 3600, true, "1:00 pm"],
  ])(
    "from %d h, %d s on, in 12 hours %s, shows %s: its day, and no more digits than an estimate is worth",
    (start, seconds, hours12, text) => {
      expect(clock(start, seconds, hours12)).toBe(text);
    },
  );
});
