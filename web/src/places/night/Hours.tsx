import { useGesture } from "@use-gesture/react";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import type { Schema } from "../../api/client";
import { clock as clockText, useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Slider } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { hoursAxis, LEFT, RIGHT, ticks } from "./axis";

const HEIGHT = 230;
const TOP = 26;
const BOTTOM = 22;
/** Degrees from line to line. */
const STEP_C = 5;
/** Rooms are told apart by their strokes, as nothing here is told by colour. */
const dashes = ["", "10 4", "3 4", "14 4 2 4", "6 3", "2 3", "18 5", "1 5"];

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
                  {clockText(night.startHour, h * 3600).slice(0, 5)}
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
            {under?.zones.map((z, i) => (
              <path
                key={z.zoneId}
                d={path(z.c.slice(0, last + 1))}
                fill="none"
                stroke="var(--strong)"
                strokeWidth={4}
                opacity={0.35}
                strokeDasharray={dashes[i % dashes.length]}
                data-under={z.zoneId}
              />
            ))}
            {night.zones.map((z, i) => (
              <path
                key={z.zoneId}
                d={path(z.c)}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.7}
                strokeDasharray={dashes[i % dashes.length]}
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
            <Names night={night} rig={rig} hour={hour} />
          </svg>
        )}
      </div>
      <div style={{ paddingLeft: LEFT - 12, paddingRight: RIGHT - 12 }}>
        <Slider label="Hour" value={hour} min={0} max={last} step={1} text={clock(night.startHour, hour * 3600)} onChange={onHour} />
      </div>
    </div>
  );
}

/** What each line is, and how warm at the hour that is looked at: the warmest first. */
function Names({ night, rig, hour }: Pick<Props, "night" | "rig" | "hour">) {
  const print = usePrint();
  const named = [
    ...night.zones.map((z, i) => ({
      id: z.zoneId,
      name: rig.shell.zones.find((r) => r.id === z.zoneId)?.name ?? "",
      c: z.c[hour] ?? 0,
      dash: dashes[i % dashes.length],
    })),
    { id: "outdoors", name: "outdoors", c: night.weather[hour]?.temperatureC ?? 0, dash: null },
  ].sort((a, b) => b.c - a.c);
  const step = Math.min(22, (HEIGHT - 16) / named.length);
  return (
    <g>
      {named.map((n, i) => {
        const at = TOP - 2 + i * step;
        return (
          <g key={n.id}>
            <line
              x1={2}
              x2={28}
              y1={at - 4}
              y2={at - 4}
              stroke={n.dash === null ? "var(--muted)" : "var(--ink)"}
              strokeWidth={n.dash === null ? 4 : 1.7}
              strokeDasharray={n.dash === null ? "0.1 7" : n.dash}
              strokeLinecap={n.dash === null ? "round" : "butt"}
            />
            <text x={34} y={at}>
              {n.name.length > 17 ? `${n.name.slice(0, 16)}…` : n.name}
            </text>
            <text x={LEFT - 14} y={at} textAnchor="end" style={{ fontWeight: 600 }}>
              {print(n.c, "temperature")}
            </text>
          </g>
        );
      })}
    </g>
  );
}
