/** Line drawings of stock parts in one hand: 24 units square, drawn with one stroke; what is filled is water, or solid. */
const glyphs: Record<string, string> = {
  tank: "M3 8h18v11H3zM3 12q3-2 6 0t6 0t6 0M6 8V5h3v3",
  "tall-tank": "M7 3h10v18H7zM7 8q2.5-2 5 0t5 0",
  "arch-tank": "M2 19V9h20v10h-4a6 6 0 0 0-12 0z",
  "l-tank": "M3 5h18v7h-8v7H3zM3 9q3-2 5 0",
  "twin-tank": "M2 8h8v10H2zM14 8h8v10h-8zM10 16h4",
  can: "M6 8l3-4h6l3 4v13H6zM9 4V2h4",
  "dip-tube": "M12 2v18M8 6h8M9 20h6",
  "level-sender": "M12 2v12M8 5h8M9 14h6v5H9z",
  "hand-hole": "M12 4a8 8 0 1 0 0 16a8 8 0 1 0 0-16M8 12h8",
  "fill-spout": "M4 5h9l5 7v8h-4v-6L10 10H4z",
  "town-inlet": "M3 12h6M9 8v8l7-4zM16 8v8M16 12h5",
  "town-coupling": "M3 12h6M9 8h5v8H9zM14 10v4M14 12h7",
  "pressure-regulator": "M3 15h18M7 15V9h10v6M12 9V4M9 4h6",
  "fill-filter": "M3 12h4M17 12h4M7 8h10v8H7zM10 8v8M14 8v8",
  "overflow-end": "M5 20V9q0-4 4-4t4 4v3M13 15v1M13 19v1",
  pump: "M12 5a7 7 0 1 0 0 14a7 7 0 1 0 0-14M9 9l6 3l-6 3zM2 12h3M19 12h3",
  "foot-pump": "M4 19h16M6 19l10-9l3 3M6 15q-2-4 2-6",
  "submersible-pump": "M9 9h6v11H9zM12 9V2M9 13h6M10 20v2M14 20v2",
  "return-pump": "M12 5a7 7 0 1 0 0 14a7 7 0 1 0 0-14M15 9l-6 3l6 3zM2 12h3M19 12h3",
  accumulator: "M12 3c5 0 6 4 6 8s-1 6-6 6s-6-2-6-6s1-8 6-8M6 11h12M12 17v5",
  "expansion-vessel": "M12 2c6 0 7 5 7 9s-2 7-7 7s-7-3-7-7s1-9 7-9M6 8q6 5 12 0M12 18v4",
  strainer: "M3 8h18M8 8v9q4 4 8 0V8M10 12h4M10 15h4",
  filter: "M3 6h18M8 6v13q0 2 4 2t4-2V6M11 9v9M13 9v9",
  "drinking-filter": "M4 6h16M9 6v12q3 3 6 0V6M12 9v8",
  ultraviolet: "M3 9h18v6H3zM6 12h12M9 5v2M12 4v3M15 5v2",
  "storage-heater": "M5 3h14v18H5zM9 16q-2-2 0-4t0-4M13 16q-2-2 0-4t0-4",
  "gas-heater": "M6 2h12v18H6zM12 8q4 4 1 7q-1 2-3 1q-3-2 0-5q2-1 2-3M9 20v2M15 20v2",
  "plate-exchanger": "M7 3h10v18H7zM9 3v18M11 3v18M13 3v18M15 3v18",
  calorifier: "M4 7q0-3 8-3t8 3v10q0 3-8 3t-8-3zM8 12q2-3 4 0t4 0",
  "coil-calorifier": "M4 7q0-3 8-3t8 3v10q0 3-8 3t-8-3zM7 10h10M7 13h10M7 16h10",
  "mixing-valve": "M3 12h6M15 12h6M12 15v6M12 9a3 3 0 1 0 0 6a3 3 0 1 0 0-6M12 9V4M9 4h6",
  "relief-valve": "M3 17h9v-5M12 12V9M9 9h6M12 9l-2-2l4-2l-4-2M12 17v4",
  "coolant-heater": "M3 6h18v12H3zM12 9q4 3 1 6q-2 1-3-1q0-2 2-5M6 18v3M10 18v3",
  "pumped-coolant-heater": "M3 6h18v12H3zM9 9q4 3 1 6q-2 1-3-1q0-2 2-5M16 9a3 3 0 1 0 0 6a3 3 0 1 0 0-6M6 18v3M10 18v3",
  "coolant-coil": "M3 7h14a2 2 0 0 1 0 4H7a2 2 0 0 0 0 4h14",
  "loop-element": "M2 12h4M18 12h4M6 8h12v8H6zM13 9l-3 3.5h4l-3 3",
  "exchanger-side": "M9 3h8v18H9zM12 3v18M14.5 3v18M3 7h6M3 17h6",
  engine: "M4 9h3l2-3h6v3h3v3h2v5h-2v2H8l-2-3H4zM9 9h6M12 12v4M10 14h4",
  circulator: "M12 6a6 6 0 1 0 0 12a6 6 0 1 0 0-12M2 12h4M18 12h4M12 9v6M9 12h6",
  radiator: "M3 6h18v12H3zM7 6v12M11 6v12M15 6v12M19 6v12",
  "panel-radiator": "M3 5h18v13H3zM3 8h18M3 15h18M8 8v7M12 8v7M16 8v7",
  "towel-ladder": "M6 3v18M18 3v18M6 6h12M6 9h12M6 14h12M6 17h12",
  "header-tank": "M5 7h14v11H5zM10 7V4h4v3M5 12h14M12 18v4",
  mixer: "M9 21V9q0-5 5-5q4 0 4 5v2M5 21h8M9 6L5 3",
  "cold-tap": "M9 21V11h8v4M6 21h6M9 11V7M6 7h6",
  "drinking-tap": "M10 21V8q0-5 4-5t4 5v1M7 21h6",
  "shower-mixer": "M3 14h18M7 14v-4M17 14v-4M12 14v6M5 10h4M15 10h4",
  "shower-hose": "M5 21q-2-9 4-11t3-7M10 3h8l-2 5z",
  "outdoor-shower": "M3 4h18v13H3zM8 10h8M12 17v5M10 22h4M9 7h6",
  "toilet-valve": "M3 12h7v-3h4v6h-4M14 12h7M12 9V5M9 5h6",
  toilet: "M5 3h6v8H5zM5 11h14q0 6-6 7v3H8v-3q-3-2-3-7",
  "pet-wash": "M3 14q0-4 4-4h8q4 0 5-4l1 6v7h-3v-4H9v4H6v-5M9 3v3M12 2v3",
  "washing-machine": "M4 3h16v18H4zM4 7h16M12 9a5 5 0 1 0 0 10a5 5 0 1 0 0-10M9 15q3-3 6 0",
  dishwasher: "M4 4h16v16H4zM4 8h16M7 16q5-6 10 0M8 12v3M12 11v3M16 12v3",
  basin: "M3 8h18q-1 8-9 8t-9-8M12 16v5",
  "shower-tray": "M2 13h20v5H2zM12 18v3M5 16h3M16 16h3",
  trap: "M6 3v10q0 6 6 6t6-6v-2h4M10 3v10q0 2 2 2t2-2V7h8",
  "waterless-trap": "M8 3h8v6l-4 8l-4-8zM10 11h4M12 17v4",
  "grey-tank": "M3 7h18v10H3zM6 13h12M8 10h8M3 15H1v4",
  "wheeled-grey-tank": "M3 7h18v9H3zM6 19a1.8 1.8 0 1 0 4 0a1.8 1.8 0 1 0-4 0M14 19a1.8 1.8 0 1 0 4 0a1.8 1.8 0 1 0-4 0M21 9l2-4",
  bucket: "M5 9h14l-2 12H7zM5 9q7-12 14 0",
  "dump-valve": "M3 8h10v8H3zM13 8l6 8M13 16l6-8M8 8V4M6 4h4",
  "drain-cock": "M3 9h10M13 6v6h-3v-6zM11.5 12v5M11.5 20v1M9 3h5",
  "frost-valve": "M3 8h8v5M11 13v4M11 20v1M17 5v9M13 7.2l8 4.5M21 7.2l-8 4.5",
  "air-port": "M3 17h10v-4M13 13V9h-3v4zM11.5 6q0-3 4-3t4 3t-3 3",
  "open-end": "M3 12h12M15 8a4 4 0 1 0 0 8a4 4 0 1 0 0-8",
  "vent-cap": "M12 21v-9M6 12h12q0-6-6-6t-6 6M9 9v3M12 8v4M15 9v3",
  bleed: "M4 17h16M12 17v-6M9 11h6M12 8v-1M12 4v-1",
  "ball-valve": "M2 12h4M18 12h4M6 8v8l12-8v8zM12 12V5M12 5h6",
  "ball-valve-22": "M2 12h3M19 12h3M5 6v12l14-12v12zM12 12V3M12 3h7",
  "motor-valve": "M2 14h4M18 14h4M6 10v8l12-8v8zM12 14v-4M8 4h8v6H8zM10 8V6l2 2l2-2v2",
  "motor-valve-shuts": "M2 14h4M18 14h4M6 10v8l12-8v8zM12 14v-4M8 4h8v6H8zM10 7h4M2 19h20",
  "motor-valve-opens": "M2 14h4M18 14h4M6 10v8l12-8v8zM12 14v-4M8 4h8v6H8zM12 5v4M10 7h4",
  "three-way-valve": "M2 12h4M18 12h4M6 8v8l6-4zM18 8v8l-6-4zM8 18h8l-4-6zM12 18v4",
  "angle-valve": "M2 16h6M8 12v8l6-4zM14 16v-6M10 10h8l-4-6z",
  "check-valve": "M2 12h5M7 7v10l9-5zM16 7v10M16 12h6",
  "manifold-3": "M2 15h19M6 15V6M12 15V6M18 15V6",
  "manifold-5": "M1 15h22M3 15V7M7.5 15V7M12 15V7M16.5 15V7M21 15V7",
  tee: "M2 15h20M12 15V4",
  elbow: "M3 17h9q5 0 5-5V3",
  coupling: "M2 12h20M8 8v8M16 8v8",
  reducer: "M2 12h6M8 7v10l8-3v-4zM16 12h6",
  "hose-tail": "M2 12h6M8 8v8M10 9l2 6M13 9l2 6M16 9l2 6M18 12h4",
  "end-cap": "M3 12h12M15 7v10M18 7v10",
  "pump-set": "M1 14h3M4 11v6l4-3zM10 9a5 5 0 1 0 6 8M13 9v-3M10 6h6M18 14h5M20 14V7M18 3h4v4h-4z",
  "filter-bypass": "M1 18h5M18 18h5M6 18V7h12v11M9 13h6M10 13v8q2 2 4 0v-8",
  "heater-bypass": "M1 19h22M1 5h22M12 5v14M9 9l6 6M15 9l-6 6",
  "hot-set": "M3 6h11v14H3zM7 16q-2-2 0-4M10 16q-2-2 0-4M14 9h4v5M18 14v7M16 14h4",
  "sink-set": "M2 12h14q-1 6-7 6t-7-6M9 18v4M17 12V6q0-3 3-3",
  "grey-set": "M4 10h14v8H4zM4 16H2v5M18 11h3V3M7 14h8",
  "tank-set": "M4 9h16v10H4zM4 13q4-2 8 0t8 0M7 9V3M17 9V6h4",
};

/** The lines of a picture, in a square of 24. */
export const glyphOf = (stock: string): string | undefined => glyphs[stock];

/** The picture of a part from stock, or of a set. */
export function PartGlyph({ stock, size = 24 }: { stock: string; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0" data-glyph={stock}>
      <path
        d={glyphs[stock] ?? "M5 5h14v14H5z"}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.6}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  );
}
