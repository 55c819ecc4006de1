import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { RunStroke } from "../../drawing/RunStroke";
import { services } from "../../drawing/services";
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

const marks: [ReactNode, string][] = [
  [<path key="m" d="M6 9H50" stroke="var(--stays)" strokeWidth={8} strokeLinecap="round" />, "water that stays"],
  [<path key="m" d="M24 3L31 9L24 15" fill="none" stroke="var(--ink)" strokeWidth={1.6} />, "falls this way"],
  [<rect key="m" x={4} y={4} width={48} height={10} fill="url(#ice-hatch)" />, "ice"],
  [<path key="m" d="M19 4h18l-9 11z" fill="var(--ink)" />, "drain"],
  [<circle key="m" cx={28} cy={9} r={3} fill="var(--ink)" />, "tee or joint"],
  [<circle key="m" cx={28} cy={9} r={4.5} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.25} />, "open end"],
  [
    <rect key="m" x={23} y={4} width={10} height={10} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />,
    "port of the part in hand",
  ],
  [<rect key="m" x={4} y={3} width={48} height={12} fill="url(#solid-hatch)" stroke="var(--strong)" />, "solid: an arch, a wall"],
];

/** What strokes and marks mean. */
export function Key() {
  const row = (sign: ReactNode, words: string) => (
    <li key={words} className="flex items-center gap-3">
      <svg width="56" height="18" aria-hidden="true">
        {sign}
      </svg>
      {words}
    </li>
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="h-10 shrink-0 rounded-md border border-rule px-3 font-medium hover:border-strong">Key</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-50 grid grid-cols-2 gap-x-8 rounded-md border border-strong bg-panel p-4 shadow-xl"
          align="end"
          collisionPadding={12}
          aria-label="Key to the drawings"
        >
          <ul>
            {(Object.keys(services) as Schema["Service"][]).map((s) =>
              row(<RunStroke d="M4 9H52" service={s} colour="var(--pipe)" />, services[s]),
            )}
          </ul>
          <ul>{marks.map(([sign, words]) => row(sign, words))}</ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
