import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Schema } from "../../api/client";
import { type Print, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { Working } from "../../ui/Working";
import { useAnswers } from "../bench/benchStores";
import { useJob } from "../bench/useAsked";

const HEIGHT = 150;
/** Hours from line to line. */
const steps = [4, 8, 12, 24];

/** How cold and for how long: the hours it is safe at each constant temperature. The end of what was tried is never shown as a limit. */
export function Limit() {
  const [box, size] = useSize<HTMLDivElement>();
  const asked = useJob("limit");
  const { data } = asked;
  const outdoorC = useAnswers((s) => s.conditions?.outdoorC ?? 0);
  const print = usePrint();
  const [left, right, top, bottom] = [46, 12, 10, 24];
  const coldest = data?.triedC ?? -40;
  const known = data?.curve.filter((p) => p.hours != null) ?? [];
  // As high as what is known and the night itself need.
  const step = steps.find((s) => 3 * s >= Math.max(data?.forHours ?? 0, ...known.map((p) => p.hours ?? 0))) ?? 24;
  const most = 3 * step;
  const x = scaleLinear([0, coldest], [left, size.width - right]);
  const y = scaleLinear([0, most], [HEIGHT - bottom, top]).clamp(true);
  const late = outdoorC < 0.7 * coldest;
  // The coldest at which it is safe for longer than was tested, and the warmest at which it is not.
  const [longer, shortest] = [data?.curve.findLast((p) => p.hours == null), known[0]];
  return (
    <Panel className="p-3" aria-label="Cold limit">
      <h2 className="text-[17px] font-semibold">Cold limit</h2>
      {!data ? (
        <Working words="Trying colder and longer nights…" asked={asked} />
      ) : (
        <p>
          {data.limit.standsAllTried
            ? `Nothing breaks in ${print(data.forHours * 3600, "duration")} down to ${print(data.triedC, "temperature")}; colder was not tried.`
            : data.limit.coldestC == null
              ? `It breaks just below zero within ${print(data.forHours * 3600, "duration")}.`
              : `For ${print(data.forHours * 3600, "duration")} it is safe to ${print(data.limit.coldestC, "temperature")}.`}{" "}
          {data.limit.failsC != null && (
            <span className="text-muted">{`The warmest night that breaks something is ${print(data.limit.failsC, "temperature")}. `}</span>
          )}
          {data.limit.kinderC != null && <Kinder at={print(data.limit.kinderC, "temperature")} />}
          <span className="text-muted">
            At {print(data.atLowest.outdoorC, "temperature")}{" "}
            {data.atLowest.hours == null
              ? `nothing breaks in ${print(data.triedHours * 3600, "duration")}; longer was not tried.`
              : `${data.atLowest.first} breaks after ${print(data.atLowest.hours * 3600, "duration")}.`}
          </span>
        </p>
      )}
      <div ref={box} className="mt-1" style={{ height: HEIGHT }}>
        {data && size.width > 0 && (
          <svg width={size.width} height={HEIGHT} role="img" aria-label="Safe hours by outdoor temperature">
            {[0, step, 2 * step, 3 * step].map((h) => (
              <g key={h}>
                <line x1={left} x2={size.width - right} y1={y(h)} y2={y(h)} stroke="var(--rule)" />
                <text x={left - 6} y={y(h) + 4} textAnchor="end" style={{ fill: "var(--muted)" }}>
                  {h} h
                </text>
              </g>
            ))}
            {[0, -10, -20, -30, -40].map((c) => (
              <text
                key={c}
                x={x(c)}
                y={HEIGHT - 6}
                textAnchor={c === 0 ? "start" : c === -40 ? "end" : "middle"}
                style={{ fill: "var(--muted)" }}
              >
                {print(c, "temperature")}
              </text>
            ))}
            <path
              d={
                line<(typeof known)[number]>(
                  (p) => x(p.outdoorC),
                  (p) => y(p.hours ?? 0),
                ).digits(1)(known) ?? ""
              }
              fill="none"
              stroke="var(--ink)"
              strokeWidth={2}
            />
            {longer && shortest && (
              <path
                d={`M${x(longer.outdoorC)} ${top}L${x(shortest.outdoorC)} ${y(shortest.hours ?? 0)}`}
                stroke="var(--ink)"
                strokeWidth={1.5}
                strokeDasharray="2 4"
                data-longer
              />
            )}
            {known.map((p) => (
              <circle key={p.outdoorC} cx={x(p.outdoorC)} cy={y(p.hours ?? 0)} r={2.5} fill="var(--ink)" />
            ))}
            <line x1={x(outdoorC)} x2={x(outdoorC)} y1={top} y2={HEIGHT - bottom} stroke="var(--strong)" strokeDasharray="4 3" />
            <circle cx={x(outdoorC)} cy={y(data.forHours)} r={5} fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
            <text x={x(outdoorC) + (late ? -9 : 9)} y={y(data.forHours) - 6} textAnchor={late ? "end" : "start"}>
              this night
            </text>
          </svg>
        )}
      </div>
      <p className="text-muted">{`On nights of one temperature, from an evening kept as above${longer && shortest ? "; dotted: longer than was tried" : ""}. Estimate.`}</p>
      {data?.brief && <OfBrief brief={data.brief} print={print} triedC={data.triedC} />}
    </Panel>
  );
}

/** A colder night that breaks nothing is no night to wait for. */
const Kinder = ({ at }: { at: string }) => (
  <span className="text-muted" data-kinder>
    {`At ${at} nothing bursts: the lines freeze through before ice shuts their way out. Don't count on it; nights in between do break something. `}
  </span>
);

/** What the brief asks for, whatever night is looked at. */
function OfBrief({ brief: b, print, triedC }: { brief: Schema["BriefLimit"]; print: Print; triedC: number }) {
  const hours = print(b.hours * 3600, "duration");
  const lowest = print(b.lowestC, "temperature");
  const { hours: breaks, first } = b.atLowest;
  return (
    <p className="mt-2 border-t border-rule pt-2" data-brief>
      <span className="text-muted">
        The brief asks for {hours} without heat at {lowest}, {b.drained ? "drained" : "full"}:{" "}
      </span>
      <strong className="font-semibold">
        {breaks == null
          ? `nothing breaks in ${print(b.triedHours * 3600, "duration")}`
          : b.stands
            ? `it is safe for that, and ${first} breaks after ${print(breaks * 3600, "duration")}`
            : `${first} breaks after ${print(breaks * 3600, "duration")}`}
      </strong>
      <span className="text-muted">
        . {b.forHours < b.hours ? `For ${print(b.forHours * 3600, "duration")}, the longest tested,` : "For that long"}{" "}
        {b.limit.standsAllTried
          ? `it is safe to ${print(triedC, "temperature")}, the coldest tested.`
          : b.limit.coldestC == null
            ? "any frost breaks something."
            : `it is safe to ${print(b.limit.coldestC, "temperature")}.`}
      </span>
    </p>
  );
}
