import { colourNames, cssOf, markOf, type WaterColour } from "../../drawing/temperature";

const shown: WaterColour[] = ["ice", "near", "safe", "warm", "hot"];
const line = [
  { x: -6, y: 6 },
  { x: 34, y: 6 },
];

/** What the colours and the marks beside them mean, in the morning. */
export function ColdLegend() {
  return (
    <p className="flex min-w-0 flex-wrap items-center gap-x-4 gap-y-1">
      <span className="text-muted">Water in the morning:</span>
      {shown.map((c) => (
        <span key={c} className="inline-flex items-center gap-1.5">
          <svg width="28" height="12" aria-hidden="true">
            <rect y="2" width="28" height="8" rx="2" fill={c === "ice" ? "url(#ice-hatch)" : cssOf(c)} />
            <path d={markOf(c, line)} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
          </svg>
          {colourNames[c]}
        </span>
      ))}
    </p>
  );
}
