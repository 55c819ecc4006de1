import { useGesture } from "@use-gesture/react";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import type { Schema } from "../../api/client";
import { useSettings } from "../../app/settings";
import { useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Slider } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { hoursAxis, LEFT, RIGHT, ticks } from "./axis";

const HEIGHT = 230;
const TOP = 26;
const BOTTOM = 22;
/** Degrees from line to line. */
const STEP_C = 5;
/** From one name to the next. */
const NAME_PX = 18;

interface Props {
  night: Schema["NightHoursAnswer"];
  under: Schema["NightHoursAnswer"] | null;
  rig: Rig;
  hour: number;
  onHour(hour: number): void;
}

/** Outdoors and the rooms over the hours, with the hour that is looked at; a night that is held lies under it. */
export function Hours({ night, under, rig, hour, onHour }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const svg = useRef<SVGSVGElement>(null);
  const print = usePrint();
  const clock = useClock();
  const hours12 = useSettings((s) => s.hours12);
  const last = night.weather.length - 1;
  const width = size.width;
  const all = [
    ...night.weather.map((w) => w.temperatureC),
    ...night.zones.flatMap((z) => z.c),
    ...(under?.zones.flatMap((z) => z.c) ?? []),
  ];
  const low = Math.floor(Math.min(0, ...all) / STEP_C) * STEP_C;
  const high = Math.ceil(Math.max(STEP_C, ...all) / STEP_C) * STEP_C;
  const y = scaleLinear([low, high], [HEIGHT - BOTTOM, TOP]);
  const x = hoursAxis(width, last);
  const course = line<number>((_, h) => x(h * 3600), y).digits(1);
  const path = (c: number[]) => course(c) ?? "";

  useGesture(
    {
      onDrag: ({ xy: [px] }) => {
        const at = x.invert(px - (svg.current?.getBoundingClientRect().left ?? 0));
        onHour(Math.round(at / 3600));
      },
    },
    { target: svg, drag: { pointer: { keys: false }, preventDefault: true }, eventOptions: { passive: false } },
  );

  // The room in which something breaks or freezes first is the one that is asked about.
  const inQuestion = (night.rungs.find((r) => r.rung.breaks) ?? night.rungs.find((r) => r.rung.state !== "safe"))?.rung.zoneId ?? null;
  const grid = Array.from({ length: (high - low) / STEP_C + 1 }, (_, i) => low + STEP_C * i);
  return (
    <div className="mt-2">
      <div ref={box} className="relative overflow-hidden" style={{ height: HEIGHT }}>
        {width > 0 && (
          <svg
            ref={svg}
            width={width}
            height={HEIGHT}
            className="absolute inset-0 block touch-none select-none"
            role="img"
            aria-label="Outdoors and rooms, hour by hour"
            data-hours
          >
            {grid.map((c) => (
              <g key={c}>
                <line
                  x1={LEFT}
                  x2={width - RIGHT}
                  y1={y(c)}
                  y2={y(c)}
                  stroke={c === 0 ? "var(--ink)" : "var(--rule)"}
                  strokeWidth={c === 0 ? 1.4 : 1}
                />
                <text x={width - RIGHT + 8} y={y(c) + 4} style={{ fill: "var(--muted)" }}>
                  {print(c, "temperature")}
                </text>
              </g>
            ))}
            <rect
              x={LEFT}
              y={y(0)}
              width={Math.max(0, width - LEFT - RIGHT)}
              height={Math.max(0, y(low) - y(0))}
              fill="var(--ice)"
              opacity={0.1}
            />
            {ticks(last, width).map((h) => (
              <g key={h}>
                <line x1={x(h * 3600)} x2={x(h * 3600)} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM + 5} stroke="var(--strong)" />
                <text x={x(h * 3600)} y={HEIGHT - 4} textAnchor="middle" style={{ fill: "var(--muted)" }}>
                  {hourWords((night.startHour + h) % 24, hours12)}
                </text>
              </g>
            ))}
            <line
              x1={x(night.morningS)}
              x2={x(night.morningS)}
              y1={TOP}
              y2={HEIGHT - BOTTOM}
              stroke="var(--strong)"
              strokeDasharray="2 4"
            />
            <text x={x(night.morningS) - 5} y={TOP - 8} textAnchor="end" style={{ fill: "var(--muted)" }}>
              morning
            </text>
            <path
              d={path(night.weather.map((w) => w.temperatureC))}
              fill="none"
              stroke="var(--muted)"
              strokeWidth={4}
              strokeDasharray="0.1 7"
              strokeLinecap="round"
            />
            {under?.zones.map((z) => (
              <path
                key={z.zoneId}
                d={path(z.c.slice(0, last + 1))}
                fill="none"
                stroke="var(--strong)"
                strokeWidth={4}
                opacity={0.35}
                data-under={z.zoneId}
              />
            ))}
            {night.zones.map((z) => (
              <path
                key={z.zoneId}
                d={path(z.c)}
                fill="none"
                stroke={z.zoneId === inQuestion ? "var(--ink)" : "var(--strong)"}
                strokeWidth={z.zoneId === inQuestion ? 3 : 1.6}
                data-room={z.zoneId}
              />
            ))}
            <line x1={x(hour * 3600)} x2={x(hour * 3600)} y1={TOP - 4} y2={HEIGHT - BOTTOM} stroke="var(--ink)" strokeWidth={1.4} />
            {[night.weather[hour]?.temperatureC ?? 0, ...night.zones.map((z) => z.c[hour] ?? 0)].map((c, i) => (
              <circle
                key={i === 0 ? "outdoors" : night.zones[i - 1]?.zoneId}
                cx={x(hour * 3600)}
                cy={y(c)}
                r={3}
                fill="var(--panel)"
                stroke="var(--ink)"
              />
            ))}
            <Names night={night} rig={rig} hour={hour} y={y} inQuestion={inQuestion} />
          </svg>
        )}
      </div>
      <div style={{ paddingLeft: LEFT - 12, paddingRight: RIGHT - 12 }}>
        <Slider label="Hour" value={hour} min={0} max={last} step={1} text={clock(night.startHour, hour * 3600)} onChange={onHour} />
      </div>
    </div>
  );
}

/** An hour of the day on an axis: 22:00, or 10 pm. */
export const hourWords = (hour: number, hours12: boolean) => {
  const whole = Math.floor(hour);
  const past = String(Math.round((hour - whole) * 60)).padStart(2, "0");
  if (!hours12) return `${String(whole).padStart(2, "0")}:${past}`;
  return `${whole % 12 || 12}${past === "00" ? "" : `:${past}`} ${whole < 12 ? "am" : "pm"}`;
};

/** Heights at least so far from one another, as near as may be to those that are wanted, which rise. */
export function spread(wanted: number[], apart: number, most: number): number[] {
  const placed: number[] = [];
  for (const at of wanted) placed.push(Math.max(at, (placed.at(-1) ?? Number.NEGATIVE_INFINITY) + apart));
  return placed.map((at, i) => Math.min(at, most - apart * (placed.length - 1 - i)));
}

/** The name of each line at its beginning, and how warm it is at the hour that is looked at. */
function Names({
  night,
  rig,
  hour,
  y,
  inQuestion,
}: Pick<Props, "night" | "rig" | "hour"> & { y(c: number): number; inQuestion: string | null }) {
  const print = usePrint();
  const named = [
    ...night.zones.map((z) => ({
      id: z.zoneId,
      name: rig.shell.zones.find((r) => r.id === z.zoneId)?.name ?? "",
      from: z.c[0] ?? 0,
      c: z.c[hour] ?? 0,
    })),
    { id: "outdoors", name: "outdoors", from: night.weather[0]?.temperatureC ?? 0, c: night.weather[hour]?.temperatureC ?? 0 },
  ].sort((a, b) => b.from - a.from);
  const places = spread(
    named.map((n) => y(n.from)),
    Math.min(NAME_PX, (HEIGHT - BOTTOM - 8) / named.length),
    HEIGHT - BOTTOM,
  );
  return (
    <g>
      {named.map((n, i) => {
        const at = places[i] ?? 0;
        const strong = n.id === inQuestion;
        return (
          <g key={n.id}>
            <path
              d={`M${LEFT - 10} ${at}L${LEFT} ${y(n.from)}`}
              stroke={strong ? "var(--ink)" : "var(--strong)"}
              strokeWidth={strong ? 2 : 1}
              fill="none"
            />
            <text x={2} y={at + 4} style={{ fontWeight: strong ? 700 : 450 }}>
              {n.name.length > 20 ? `${n.name.slice(0, 19)}…` : n.name}
            </text>
            <text x={LEFT - 14} y={at + 4} textAnchor="end" style={{ fontWeight: 600 }}>
              {print(n.c, "temperature")}
            </text>
          </g>
        );
      })}
    </g>
  );
}
