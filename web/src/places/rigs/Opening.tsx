import { Link } from "wouter";
import { Button } from "../../ui/controls";
import { useWalk } from "../bench/walkStore";
import "./opening.css";

const steps = [
  ["Draw it", "Lines with the real height of every bend."],
  ["Let a night come", "See what freezes first, and when."],
  ["Drain it", "See how much stays, and where."],
  ["Fix it", "Apply a fix that was tried, and it's safe."],
] as const;

const LINE = "M112 92L176 126L262 118L302 150L344 112L432 104V66";
const LOW = "M262 118L302 150L344 112";
const DIP = "M266 121L302 150L338 117";

/** What the program does, in one picture that moves; it stands still where reduced motion is wished. */
export function Opening({ walkOn, onHide }: { walkOn: string | null; onHide?(): void }) {
  const begin = useWalk((s) => s.begin);
  return (
    <section
      aria-label="What Warm Conduit does"
      className="opening mb-5 grid gap-x-6 gap-y-3 rounded-md border border-rule bg-panel p-4 min-[900px]:grid-cols-[minmax(0,34rem)_minmax(0,1fr)]"
    >
      <svg
        viewBox="0 0 560 200"
        className="w-full rounded-[5px] bg-ground"
        role="img"
        aria-label="A van: its line fills, the dip in it freezes, it drains all but the dip, and the dip is raised"
      >
        <rect data-scene="night" width={560} height={200} fill="var(--ice)" fillOpacity={0.16} />
        <g fill="none" stroke="var(--strong)" strokeWidth={1.5}>
          <path d="M60 24H440V164H60zM440 36L478 44L500 96L534 106V160H440" fill="var(--panel)" />
          <path d="M448 52L472 57L486 96H448z" fill="var(--sunk)" />
          <circle cx={140} cy={166} r={22} fill="var(--sunk)" />
          <circle cx={488} cy={166} r={22} fill="var(--sunk)" />
        </g>
        <path d={LINE} fill="none" stroke="var(--rule)" strokeWidth={13} strokeLinejoin="round" data-scene="low" />
        <path d={LOW} fill="none" stroke="var(--strong)" strokeWidth={1} data-scene="low" />
        <path d="M262 118L344 112" stroke="var(--rule)" strokeWidth={13} data-scene="raised" />
        <path d="M112 92L176 126L262 118M344 112L432 104V66" fill="none" stroke="var(--rule)" strokeWidth={13} strokeLinejoin="round" />
        <path data-scene="water" pathLength={100} d={LINE} fill="none" stroke="var(--full)" strokeWidth={9} strokeLinejoin="round" />
        <path data-scene="dip" d={DIP} fill="none" stroke="var(--stays)" strokeWidth={9} strokeLinejoin="round" />
        <path data-scene="ice" d={DIP} fill="none" stroke="var(--ice)" strokeWidth={13} strokeLinejoin="round" />
        <path data-scene="ice" d={DIP} fill="none" stroke="var(--panel)" strokeWidth={13} strokeDasharray="2 5" strokeOpacity={0.7} />
        <g stroke="var(--ink)" strokeWidth={2} fill="var(--panel)">
          <rect x={74} y={62} width={52} height={34} />
          <path d="M432 66V52H420M424 46H440" fill="none" strokeLinecap="round" />
          <path d="M176 126V146M168 146H184L176 156z" />
          <circle cx={302} cy={150} r={5} data-scene="low" />
          <circle cx={303} cy={115} r={5} data-scene="raised" />
        </g>
        <circle data-scene="drop" cx={176} cy={164} r={3.5} fill="var(--stays)" />
        <g data-scene="night">
          <path d="M302 40a9 9 0 1 0 9 12a7.5 7.5 0 0 1 -9 -12z" fill="var(--ink)" />
          <text x={322} y={52} fontWeight={650} style={{ fontSize: 14 }}>
            −9 °C
          </text>
        </g>
        <text data-scene="dip" x={302} y={180} textAnchor="middle" fontWeight={650} style={{ fontSize: 14, fill: "var(--stays)" }}>
          93 mL left in the dip
        </text>
      </svg>
      <div className="flex min-w-0 flex-col">
        <h2 className="text-[21px] leading-tight font-semibold">A water system that survives the frost</h2>
        <ol className="mt-2 grid gap-0.5">
          {steps.map(([name, words], i) => (
            <li key={name} data-step style={{ "--step": i + 1 } as React.CSSProperties} className="rounded-md px-2 py-1.5">
              <strong className="font-semibold">{name}.</strong> <span className="text-muted">{words}</span>
            </li>
          ))}
        </ol>
        <div className="mt-auto flex flex-wrap gap-2 pt-2">
          {walkOn && (
            <Link
              href={`/rigs/${walkOn}`}
              onClick={() => begin(walkOn)}
              className="inline-flex h-10 items-center rounded-md border border-ink bg-ink px-4 font-medium text-panel"
            >
              Take the first walk: six steps
            </Link>
          )}
          {onHide && <Button onClick={onHide}>Hide this</Button>}
        </div>
      </div>
    </section>
  );
}
