import { describe, expect, it } from "vitest";
import { LEFT, RIGHT, ticks, xOf } from "./axis";
import { dayWords, weatherWords } from "./places";

describe("the axis of the night", () => {
  it("runs from the start to the last hour between names and figures, and nothing leaves it", () => {
    const [width, hours] = [900, 12];
    expect(xOf(0, width, hours)).toBe(LEFT);
    expect(xOf(hours * 3600, width, hours)).toBe(width - RIGHT);
    expect(xOf(hours * 1800, width, hours)).toBe((LEFT + width - RIGHT) / 2);
    expect(xOf(1e9, width, hours)).toBe(width - RIGHT);
    // Too narrow for anything: no negative lengths.
    expect(xOf(3600, 100, hours)).toBe(LEFT);
  });

  it("writes as many hours as have room, from the first on and none beyond the last", () => {
    for (const hours of [1, 8, 12, 72, 240])
      for (const width of [400, 900, 1600]) {
        const marks = ticks(hours, width);
        expect(marks[0]).toBe(0);
        expect(Math.max(...marks)).toBeLessThanOrEqual(hours);
        const [a = 0, b = hours] = marks;
        if (marks.length > 2) expect(xOf(b * 3600, width, hours) - xOf(a * 3600, width, hours)).toBeGreaterThan(30);
      }
  });
});

describe("weather in words", () => {
  it("names a night of a winter by its place and day, and hours of one's own by their number", () => {
    expect([dayWords(0), dayWords(105), dayWords(181)]).toEqual(["1 Oct", "14 Jan", "31 Mar"]);
    expect(weatherWords({ place: "osmerPlain", winter: 2, day: 105 })).toBe("Osmer Plain, 14 Jan");
    expect(weatherWords({ winter: 1, day: 0, hours: [{ temperatureC: 1, windMPerS: 0, cloud: 1 }] })).toBe("a file of one hour");
  });
});
