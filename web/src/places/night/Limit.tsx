import { usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { useAnswers } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";

const HEIGHT = 150;

/** How cold and for how long: the hours it stands at each constant temperature. The end of what was tried is never shown as a limit. */
export function Limit() {
  const [box, size] = useSize<HTMLDivElement>();
  const { data, isError } = useAsked("limit", "");
  const outdoorC = useAnswers((s) => s.conditions?.outdoorC ?? 0);
  const print = usePrint();
  const [left, right, top, bottom] = [46, 12, 10, 24];
  const coldest = data?.triedC ?? -40;
  const most = data?.triedHours ?? 72;
  const x = (c: number) => left + ((size.width - left - right) * c) / coldest;
  const y = (h: number) => top + (HEIGHT - top - bottom) * (1 - Math.min(1, h / most));
  const late = outdoorC < 0.7 * coldest;
  const known = data?.curve.filter((p) => p.hours != null) ?? [];
  return (
    <Panel className="p-3" aria-label="How cold, and for how long">
      <h2 className="text-[17px] font-semibold">How cold, and for how long</h2>
      {!data ? (
        <p className="text-muted">{isError ? "It could not be asked." : "Trying colder and longer nights…"}</p>
      ) : (
        <p>
          {data.standsAllTried
            ? `Nothing breaks in ${print(data.forHours * 3600, "duration")} down to ${print(data.triedC, "temperature")}; colder was not tried.`
            : data.coldestC == null
              ? `It breaks just below zero within ${print(data.forHours * 3600, "duration")}.`
              : `For ${print(data.forHours * 3600, "duration")} it stands ${print(data.coldestC, "temperature")}.`}{" "}
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
          <svg width={size.width} height={HEIGHT} role="img" aria-label="Hours that it stands, by outdoor temperature">
            {[0, 24, 48, 72].map((h) => (
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
              d={known.map((p, i) => `${i ? "L" : "M"}${x(p.outdoorC).toFixed(1)} ${y(p.hours ?? 0).toFixed(1)}`).join("")}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={2}
            />
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
      <p className="text-muted">On nights of one temperature, from an evening kept as above. Estimate.</p>
    </Panel>
  );
}
