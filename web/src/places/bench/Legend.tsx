import { X } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { useClock, usePrint } from "../../app/units";
import { hourRead } from "../../document/answers";
import { AirLegend } from "../../drawing/AirMarks";
import { HeatLegend } from "../../drawing/HeatMarks";
import { lineColour } from "../../drawing/lens";
import { RunStroke } from "../../drawing/RunStroke";
import { services } from "../../drawing/services";
import { hanging, stayWords } from "../../drawing/stays";
import { colourNames, cssOf, markOf, type WaterColour } from "../../drawing/temperature";
import { Button, Slider } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useAnswers, useDocument } from "./benchStores";
import { hourOf, useView } from "./viewStore";

const shown: WaterColour[] = ["ice", "near", "safe", "warm", "hot"];
const line = [
  { x: -10, y: 6 },
  { x: 30, y: 6 },
];

/** What the colours of the lens mean. */
export function Legend() {
  const lens = useView((s) => s.lens);
  return (
    <div className="flex min-w-0 flex-wrap items-center justify-between gap-x-3 gap-y-1">
      {lens === "cold" ? (
        <ColdLegend />
      ) : lens === "water" ? (
        <WaterLegend />
      ) : lens === "air" ? (
        <AirLegend />
      ) : lens === "heat" ? (
        <HeatKey />
      ) : (
        <DrainLegend />
      )}
      <Key />
    </div>
  );
}

const row = "flex min-w-0 flex-wrap items-center gap-x-3 gap-y-0.5";

/** What lines carry: those that the rig has. */
function WaterLegend() {
  const rig = useDocument((s) => s.rig);
  const used = (Object.keys(services) as Schema["Service"][]).filter((s) => rig?.runs.some((r) => r.service === s));
  return (
    <p className={row}>
      {used.map((s) => (
        <span key={s} className="inline-flex items-center gap-1.5">
          <svg width="28" height="12" aria-hidden="true">
            <RunStroke d="M2 6H26" service={s} colour={lineColour("water", s)} />
          </svg>
          {services[s]}
        </span>
      ))}
    </p>
  );
}

/** What stays after draining, in the drawing and in litres. */
function DrainLegend() {
  const drain = useAnswers((s) => s.answers?.drainDown);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!drain) return null;
  const { sum, where, apart } = stayWords(drain.stays, print);
  return (
    <Stale as="p" stale={stale} className="flex min-w-0 items-center gap-2 leading-5" data-summary>
      <svg width="26" height="12" aria-hidden="true" className="shrink-0">
        <path d="M5 6H21" stroke="var(--stays)" strokeWidth="8" strokeLinecap="round" />
      </svg>
      <span>
        <span className="text-muted">After draining </span>
        <strong className="font-semibold">{sum}</strong>
        <span className="text-muted">
          {where && `: ${where}`}
          {apart && `; ${apart}`}
        </span>
      </span>
    </Stale>
  );
}

/** The heating fluid, at the hour that is looked at. */
function HeatKey() {
  const print = usePrint();
  return (
    <div className={row}>
      <HourLooked />
      <HeatLegend print={print} />
    </div>
  );
}

/** The temperature of the water, at the hour that is looked at. */
function ColdLegend() {
  return (
    <div className={row}>
      <HourLooked />
      <p className="flex flex-wrap gap-x-2.5">
        {shown.map((c) => (
          <span key={c} className="inline-flex items-center gap-1.5">
            <svg width="20" height="12" aria-hidden="true">
              <rect y="2" width="20" height="8" rx="2" fill={c === "ice" ? "url(#ice-hatch)" : cssOf(c)} />
              <path d={markOf(c, line)} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
            </svg>
            {colourNames[c]}
          </span>
        ))}
      </p>
    </div>
  );
}

/** The hour of the night that all views show: scrubbed, and in the morning until it is. */
function HourLooked() {
  const id = useDocument((s) => s.id);
  const night = useAnswers((s) => s.night);
  const ladder = useAnswers((s) => s.answers?.freezeLadder);
  const hourly = useAnswers((s) => s.answers?.hourly);
  const chosen = useView(hourOf(id));
  const lookAt = useView((s) => s.lookAt);
  const clock = useClock();
  if (!night || !ladder) return null;
  const read = hourly ?? { stepH: 1, steps: Math.floor(ladder.endS / 3600) + 1 };
  // The one that is drawn is the one that is named.
  const hour = hourRead(read, chosen ?? ladder.morningS / 3600);
  const when = chosen === null ? "morning" : clock(night.startHour, hour * 3600);
  return (
    <div className="flex flex-wrap items-center gap-x-2">
      <span className="w-20 grow">
        <Slider
          label="Hour"
          value={hour}
          min={0}
          max={(read.steps - 1) * read.stepH}
          step={read.stepH}
          text={when}
          onChange={(h) => lookAt(id, h)}
        />
      </span>
      <strong className="whitespace-nowrap font-semibold">{when}</strong>
      {chosen !== null && (
        <Button quiet className="-ml-2 px-0" aria-label="Back to the morning" title="Back to the morning" onClick={() => lookAt(id, null)}>
          <X size={16} />
        </Button>
      )}
    </div>
  );
}

const marks: [ReactNode, string][] = [
  [<path key="m" d="M6 9H50" stroke="var(--stays)" strokeWidth={8} strokeLinecap="round" />, "water left"],
  [<path key="m" d="M8 9H50" stroke="var(--stays)" {...hanging(1)} />, "airlocked water"],
  [<path key="m" d="M24 3L31 9L24 15" fill="none" stroke="var(--ink)" strokeWidth={1.6} />, "falls this way"],
  [<rect key="m" x={4} y={4} width={48} height={10} fill="url(#ice-hatch)" />, "ice"],
  [<path key="m" d="M19 4h18l-9 11z" fill="var(--ink)" />, "drain"],
  [<circle key="m" cx={28} cy={9} r={3} fill="var(--ink)" />, "tee or joint"],
  [<circle key="m" cx={28} cy={9} r={4.5} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.25} />, "open end"],
  [
    <rect key="m" x={23} y={4} width={10} height={10} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />,
    "port of the selected part",
  ],
  [<rect key="m" x={4} y={3} width={48} height={12} fill="url(#solid-hatch)" stroke="var(--strong)" />, "solid: an arch, a wall"],
];

/** What strokes and marks mean. */
function Key() {
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
      <Popover.Trigger className="h-10 shrink-0 rounded-md px-1 text-muted underline decoration-rule underline-offset-4 hover:text-ink">
        All signs
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-50 grid grid-cols-2 gap-x-8 rounded-md border border-strong bg-panel p-4 shadow-xl"
          align="end"
          collisionPadding={12}
          aria-label="Legend"
        >
          <ul>
            {(Object.keys(services) as Schema["Service"][]).map((s) =>
              row(<RunStroke d="M4 9H52" service={s} colour={lineColour("water", s)} />, services[s]),
            )}
          </ul>
          <ul>{marks.map(([sign, words]) => row(sign, words))}</ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
