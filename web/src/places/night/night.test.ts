import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { night } from "../../test/rig";
import { LEFT, RIGHT, ticks, xOf } from "./axis";
import { dayWords, weatherWords } from "./places";
import { changedRungs, conditionsOf, isLeftAs, movedEvent, newEvent, planOf } from "./plan";

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

describe("what happens in the course of a night", () => {
  const drive = { ...newEvent("drive", 12), atH: 2, untilH: 8 };

  it("is moved to quarters of an hour, by either end or as a whole, and stays within the night", () => {
    expect(movedEvent(drive, "all", 3.1, 12)).toMatchObject({ atH: 3, untilH: 9 });
    expect(movedEvent(drive, "all", 11, 12)).toMatchObject({ atH: 6, untilH: 12 });
    expect(movedEvent(drive, "all", -4, 12)).toMatchObject({ atH: 0, untilH: 6 });
    // An end never passes the other; pulled to the end of the night it lasts.
    expect(movedEvent(drive, "from", 10, 12)).toMatchObject({ atH: 7.75, untilH: 8 });
    expect(movedEvent(drive, "until", 1, 12)).toMatchObject({ atH: 2, untilH: 2.25 });
    expect(movedEvent(drive, "until", 14, 12).untilH).toBeNull();
    expect(movedEvent({ ...drive, untilH: null }, "all", 20, 12)).toMatchObject({ atH: 11.75, untilH: null });
  });

  it("starts with what its kind needs, and ends only within the night", () => {
    expect(newEvent("open", 12, { zoneId: "garage" })).toMatchObject({ zoneId: "garage", areaM2: 0.2, heightM: 0.4, untilH: 4.5 });
    expect(newEvent("setBack", 12).holdC).toBe(8);
    expect(newEvent("away", 12).untilH).toBeUndefined();
    expect(newEvent("away", 240).untilH).toBe(124);
  });

  it("is left as its plan has it until something of that is changed, however the water is left", () => {
    for (const water of ["wet", "drained", "asLeft"] as const) {
      const c = { ...night, water };
      const kept = planOf(c, "p", "Week", [{ ...drive, id: "b" }]);
      expect(isLeftAs(c, kept)).toBe(true);
      expect({ ...c, ...conditionsOf(kept) }).toMatchObject({ water, planId: "p" });
      expect(isLeftAs({ ...c, outdoorC: c.outdoorC - 5 }, kept)).toBe(true);
      expect(isLeftAs({ ...c, startWaterC: c.startWaterC + 1 }, kept)).toBe(false);
    }
  });

  it("laid over another night names what freezes at another time, soonest first", () => {
    const of = (...rungs: [string, number | null][]) =>
      ({ rungs: rungs.map(([id, atS]) => ({ rung: { id, name: id, atS } })) }) as unknown as Schema["NightHoursAnswer"];
    expect(
      changedRungs(of(["tap", 7200], ["line", 9000], ["tank", null]), of(["tap", 7300], ["line", null], ["tank", 3600], ["trap", 100])),
    ).toEqual([
      { id: "trap", name: "trap", before: null, after: 100 },
      { id: "tank", name: "tank", before: null, after: 3600 },
      { id: "line", name: "line", before: 9000, after: null },
    ]);
  });
});
