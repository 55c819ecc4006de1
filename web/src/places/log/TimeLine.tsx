import { scaleTime } from "d3-scale";
import type { Schema } from "../../api/client";
import { useSize } from "../../ui/useSize";
import { type Kind, kindNames, standing } from "./entries";

const LANE = 24;
const LEFT = 92;
const DAY_MS = 86_400_000;

/** Entries by kind on a line of time, beside the frost of each winter, and what is due. */
export function TimeLine({ log }: { log: Schema["LogAnswer"] }) {
  const [box, size] = useSize<HTMLDivElement>();
  const now = Date.now();
  const entries = standing(log.entries).map((s) => s.entry);
  const first = Math.min(now - 300 * DAY_MS, ...entries.map((e) => Date.parse(e.at)));
  const last = now + 240 * DAY_MS;
  const x = scaleTime()
    .domain([first - 20 * DAY_MS, last])
    .range([LEFT, Math.max(LEFT + 1, size.width - 12)]);
  const kinds = (Object.keys(kindNames) as Kind[]).filter((k) => entries.some((e) => e.kind === k));
  const lanes = [...kinds.map((k) => kindNames[k]), "Due"];
  const height = lanes.length * LANE + 46;
  const from = new Date(first).getFullYear() - 1;
  const winters = Array.from({ length: new Date(last).getFullYear() - from + 1 }, (_, i) => {
    const start = Date.UTC(from + i, 9, 1);
    return { start: start + log.frost.first * DAY_MS, end: start + log.frost.last * DAY_MS };
  }).filter((w) => w.end > +(x.domain()[0] as Date) && w.start < last);
  const lane = (i: number) => 30 + i * LANE;
  const clip = (ms: number) => Math.max(LEFT, Math.min(size.width - 12, x(ms)));
  return (
    <div ref={box} className="mt-2">
      {size.width > 0 && (
        <svg width={size.width} height={height} role="img" aria-label="Entries on a line of time, beside the season of frost">
          {winters.map((w) => (
            <g key={w.start}>
              <rect x={clip(w.start)} y={6} width={Math.max(0, clip(w.end) - clip(w.start))} height={height - 26} fill="var(--sunk)" />
              {clip(w.end) - clip(w.start) > 44 && Math.abs((clip(w.start) + clip(w.end)) / 2 - x(now)) > 40 && (
                <text x={(clip(w.start) + clip(w.end)) / 2} y={20} textAnchor="middle" fontSize={14} fill="var(--muted)">
                  frost
                </text>
              )}
            </g>
          ))}
          {lanes.map((name, i) => (
            <g key={name}>
              <text x={LEFT - 8} y={lane(i) + 16} textAnchor="end" fontSize={14} fill="var(--muted)">
                {name}
              </text>
              <line x1={LEFT} x2={size.width - 12} y1={lane(i) + 11} y2={lane(i) + 11} stroke="var(--rule)" />
            </g>
          ))}
          {entries.map((e) => (
            <circle
              key={e.id}
              cx={x(Date.parse(e.at))}
              cy={lane(kinds.indexOf(e.kind)) + 11}
              r={5}
              fill="var(--ink)"
              stroke="var(--panel)"
              strokeWidth={1.5}
            >
              <title>
                {new Date(e.at).toLocaleDateString()}: {e.words}
              </title>
            </circle>
          ))}
          {log.due.map((d) => (
            <circle
              key={d.id}
              cx={clip(Math.max(first, Date.parse(d.dueOn)))}
              cy={lane(lanes.length - 1) + 11}
              r={5}
              fill={d.isDue ? "var(--ink)" : "var(--panel)"}
              stroke="var(--ink)"
              strokeWidth={2}
            >
              <title>
                {d.name}: {new Date(d.dueOn).toLocaleDateString()}
              </title>
            </circle>
          ))}
          <line x1={x(now)} x2={x(now)} y1={6} y2={height - 20} stroke="var(--ink)" strokeDasharray="3 3" />
          <text x={x(now) + 4} y={16} fontSize={14} fill="var(--ink)">
            now
          </text>
          {x.ticks(Math.max(2, Math.floor(size.width / 130))).map((t) => (
            <text key={+t} x={x(t)} y={height - 4} textAnchor="middle" fontSize={14} fill="var(--muted)">
              {t.toLocaleDateString(undefined, { month: "short", year: "numeric" })}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}
