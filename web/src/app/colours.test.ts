import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const css = readFileSync("src/app/styles.css", "utf8");

/** The colours of a theme, by name; dark takes what it does not say from light. */
function colours(theme: "light" | "dark") {
  const read = (block: string) => Object.fromEntries([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6})/g)].map((m) => [m[1], m[2]]));
  const light = read(css.slice(css.indexOf(":root"), css.indexOf('[data-theme="dark"] {')));
  return theme === "light" ? light : { ...light, ...read(css.slice(css.indexOf('[data-theme="dark"] {'), css.indexOf("@theme"))) };
}

const rgb = (hex: string) => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16) / 255);
const linear = (hex: string) => rgb(hex).map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
const times = (m: number[][], v: number[]) => m.map((row) => row.reduce((sum, x, i) => sum + x * (v[i] ?? 0), 0));

/** Contrast by WCAG 2.2. */
function contrast(a: string, b: string) {
  const light = (hex: string) => times([[0.2126, 0.7152, 0.0722]], linear(hex))[0] as number;
  const [x, y] = [light(a), light(b)];
  return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
}

/** How colour-blind eyes see linear RGB: Machado, Oliveira and Fernandes (2009), severity 1. */
const eyes: Record<string, number[][]> = {
  usual: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  protan: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deutan: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritan: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};

/** CIE L*a*b* (D65) of what such eyes see. */
function lab(hex: string, eye: number[][]) {
  const seen = times(eye, linear(hex)).map((c) => Math.min(1, Math.max(0, c)));
  const xyz = times(
    [
      [0.4124564 / 0.95047, 0.3575761 / 0.95047, 0.1804375 / 0.95047],
      [0.2126729, 0.7151522, 0.072175],
      [0.0193339 / 1.08883, 0.119192 / 1.08883, 0.9503041 / 1.08883],
    ],
    seen,
  ).map((t) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29)) as [number, number, number];
  return [116 * xyz[1] - 16, 500 * (xyz[0] - xyz[1]), 200 * (xyz[1] - xyz[2])];
}
const apart = (a: string, b: string, eye: number[][]) => Math.hypot(...lab(a, eye).map((x, i) => x - (lab(b, eye)[i] as number)));

for (const theme of ["light", "dark"] as const)
  describe(`colours in the ${theme}`, () => {
    const c = colours(theme) as Record<string, string>;
    const of = (name: string) => c[name] as string;

    it("text has AA contrast on every ground that it stands on", () => {
      for (const text of ["ink", "muted"])
        for (const ground of ["ground", "panel", "sunk"])
          expect(contrast(of(text), of(ground)), `${text} on ${ground}`).toBeGreaterThan(4.5);
      for (const verdict of ["safe", "risk", "damage"])
        expect(contrast(of("verdict-on"), of(`verdict-${verdict}`)), verdict).toBeGreaterThan(4.5);
    });

    it("lines and signs are seen against the drawing", () => {
      for (const line of [
        "stays",
        "ice",
        "line-cold",
        "line-hot",
        "line-waste",
        "line-coolant",
        "line-fill",
        "line-air",
        "near",
        "safe",
        "hot",
      ])
        expect(contrast(of(line), of("panel")), line).toBeGreaterThan(3);
    });

    // Hot and waste are red and brown as the trade has them, and near for some eyes: their strokes tell them apart, an inner line and broad dashes.
    it("what one lens shows at once is told apart by colour-blind eyes", () => {
      const lenses = {
        drain: ["stays", "pipe", "panel"],
        cold: ["ice", "near", "safe"],
        hot: ["line-cold", "line-hot"],
        waste: ["line-cold", "line-waste"],
        verdicts: ["verdict-safe", "verdict-damage"],
      };
      for (const [lens, names] of Object.entries(lenses))
        for (const [name, eye] of Object.entries(eyes))
          names.forEach((a, i) => {
            for (const b of names.slice(i + 1)) expect(apart(of(a), of(b), eye), `${lens}, ${name}: ${a} and ${b}`).toBeGreaterThan(12);
          });
    });
  });
