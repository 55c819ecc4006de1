import { describe, expect, it } from "vitest";
// @ts-expect-error plain script
import { texts } from "./words.mjs";

/** Words that no reader should have to guess at, and inverted or passive ways of saying plain things. */
const never: RegExp[] = [
  /\bin hand\b/i,
  /\bfall strip\b/i,
  /\bMend\b/,
  /\bDo it\b/,
  /^Leave it$/,
  /\bTake it over\b/i,
  /\boff the shelf\b/i,
  /\bholds \d|holds \{…\} mL/i,
  /hangs? for want of air/i,
  /\bits way leads\b/i,
  /None of the .* ideas/,
  /\bfindings? go(es)?\b/i,
  /of the night (won|lost)/i,
  /gives? it its fall/i,
  /takes elbows/i,
  /as stock has it/i,
  /in the course of it/i,
  /let .* fall here/i,
  /\bdraughts?\b/i,
  /could not be (asked|fetched|kept)/i,
  /outranks? (them|these|it)/i,
  /\bjug says\b/i,
  /\bAsking…/,
  /\bshall\b/i,
  /at the (most|least)\b/i,
  /\b(is|are) (wanted|not taken)\b/i,
  /\bTake \{…\} (away|out|off)\b/,
  /\bby so much\b/i,
  /\bFrost plugs\b/,
];

/** One name for one thing: what it is called, and what it is not. */
const oneName: [string, RegExp][] = [
  ["heat loss, not loss of a part", /\bLoss of \{…\}|"Loss"/],
  ["air leakage", /\binfiltration\b/i],
  ["side panel", /\brail\b/i],
  ["run profile", /\bstrip of\b/i],
  ["issue", /\bproblems? found\b/i],
];

describe("words", () => {
  const all: { file: string; line: number; text: string }[] = texts();
  // What is said to programmers of the engines' own checks is not read on a screen.
  const read = all.filter((t) => !/Core\/(Flow|Heat|Levels|Numerics)\//.test(t.file));

  it("are all found: of screens and of the core", () => {
    expect(all.filter((t) => t.file.startsWith("web/")).length).toBeGreaterThan(800);
    expect(all.filter((t) => t.file.startsWith("src/")).length).toBeGreaterThan(800);
    expect(all.some((t) => t.text === "Add part")).toBe(true);
  });

  it.each(never)("do not come back: %s", (phrase) => {
    expect(read.filter((t) => phrase.test(t.text)).map((t) => `${t.file}:${t.line} ${t.text}`)).toEqual([]);
  });

  it.each(oneName)("one name for one thing: %s", (_, phrase) => {
    expect(read.filter((t) => phrase.test(t.text)).map((t) => `${t.file}:${t.line} ${t.text}`)).toEqual([]);
  });
});
