import { colourNames, cssOf, type WaterColour } from "../../drawing/temperature";

const shown: WaterColour[] = ["ice", "near", "safe", "warm", "hot"];

/** What the colours mean, in the morning. */
export function ColdLegend() {
  return (
    <p className="flex min-w-0 flex-wrap items-center gap-x-4 gap-y-1">
      <span className="text-muted">Water in the morning:</span>
      {shown.map((c) => (
        <span key={c} className="inline-flex items-center gap-1.5">
          <svg width="22" height="10" aria-hidden="true">
            <rect width="22" height="10" rx="2" fill={c === "ice" ? "url(#ice-hatch)" : cssOf(c)} />
          </svg>
          {colourNames[c]}
        </span>
      ))}
    </p>
  );
}
