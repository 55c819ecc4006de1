import { expect, it } from "vitest";
import { pathWords } from "./pathWords";

it.each([
  ["shell.zones[3].box", "room 4, place and size"],
  ["parts[0].box.size.zM", "part 1, place and size, size, height above the floor"],
  ["runs[11].bends[2].at", "line 12, bend 3, place"],
  ["shell.zones[0].airChangesPerHour", "room 1, air changes per hour"],
  ["brief.lowestC", "brief, lowest"],
  ["brief.windMPerS", "brief, wind"],
  ["formatVersion", "version"],
  ["line 4", "line 4"],
])("says %s in words", (path, words) => expect(pathWords(path)).toBe(words));
