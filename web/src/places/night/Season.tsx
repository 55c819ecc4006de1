import { useState } from "react";
import { Button, Panel } from "../../ui/controls";
import { PickField } from "../../ui/QuantityField";
import { useSize } from "../../ui/useSize";
import { useAnswers, useDocument } from "../bench/benchStores";
import { EnergyBars } from "../bench/heat/EnergyBars";
import { useJob } from "../bench/useAsked";
import { dayWords, type Place, places } from "./places";

const HEIGHT = 130;
/** A few come at once; more when they are asked for, each lot telling better than the one before. */
const lots = [5, 10, 25, 50, 100];
const FEW = 5;
const MANY = 100;

/** Many winters of a place: in which weeks something freezes, and what leads. A few come at once, a hundred when they are asked for. */
export function Season() {
  const [box, size] = useSize<HTMLDivElement>();
  const [place, setPlace] = useState<Place>("kettleFell");
  const [winters, setWinters] = useState(FEW);
  const [goOn, setGoOn] = useState(false);
  const { data: drawn, isError, share } = useJob("season", { place, winters });
  const rig = useDocument((s) => s.rig);
  const night = useAnswers((s) => s.conditions);
  // While the next lot is drawn the one before stands, if it is of this place, this rig and this night.
  const [last, setLast] = useState({ answer: drawn, rig, night });
  if (drawn && drawn !== last.answer) {
    setLast({ answer: drawn, rig, night });
    const next = lots.find((n) => n > winters);
    if (goOn && next) setWinters(next);
    else setGoOn(false);
  }
  const data = drawn ?? (last.rig === rig && last.night === night && last.answer?.place === place ? last.answer : undefined);
  const [left, right, top, bottom] = [30, 8, 10, 24];
  const wide = Math.max(0, size.width - left - right) / 26;
  const y = (n: number) => top + (HEIGHT - top - bottom) * (1 - n / 7);
  return (
    <Panel className="p-3" aria-label="Winter">
      <div className="flex flex-wrap items-end gap-3">
        <h2 className="grow text-[17px] font-semibold">Winter</h2>
        <div className="w-64">
          <PickField
            label="Invented winters of"
            value={place}
            options={Object.entries(places).map(([value, text]) => ({ value, text }))}
            onCommit={(value) => setPlace(value as Place)}
          />
        </div>
        {goOn ? (
          <Button
            onClick={() => {
              setGoOn(false);
              setWinters(data?.winters ?? FEW);
            }}
          >
            Stop at {data?.winters ?? FEW}
          </Button>
        ) : (
          <Button
            disabled={winters === MANY}
            onClick={() => {
              setGoOn(true);
              setWinters(lots.find((n) => n > winters) ?? MANY);
            }}
          >
            Calculate {MANY} winters
          </Button>
        )}
      </div>
      <p aria-live="polite" className="mt-1">
        {!data
          ? isError
            ? "Couldn't calculate this."
            : `Calculating ${winters} winters…`
          : `In ${data.wintersThatBreak} of ${data.winters} winters ice breaks something${data.leaders[0]?.breaks ? `, most often ${data.leaders[0].name}` : ""}.`}
        {(goOn || !data) && !isError && (
          <progress
            className="ml-3 align-middle"
            max={goOn ? MANY : winters}
            value={Math.max(data?.winters ?? 0, drawn ? 0 : share * winters)}
            aria-label="Winters"
          />
        )}
      </p>
      <div ref={box} style={{ height: HEIGHT }} className="mt-1">
        {data && size.width > 0 && (
          <svg width={size.width} height={HEIGHT} role="img" aria-label="Nights of each week in which something freezes">
            {[0, 7].map((n) => (
              <g key={n}>
                <line x1={left} x2={size.width - right} y1={y(n)} y2={y(n)} stroke="var(--rule)" />
                <text x={left - 6} y={y(n) + 4} textAnchor="end" style={{ fill: "var(--muted)" }}>
                  {n}
                </text>
              </g>
            ))}
            {data.weeks.map((w) => (
              <g key={w.week}>
                <rect
                  x={left + w.week * wide + 1}
                  width={Math.max(1, wide - 2)}
                  y={y(w.iceNights)}
                  height={y(0) - y(w.iceNights)}
                  fill="url(#ice-hatch)"
                  stroke="var(--strong)"
                  strokeWidth={0.6}
                />
                <rect
                  x={left + w.week * wide + 1}
                  width={Math.max(1, wide - 2)}
                  y={y(w.breakNights)}
                  height={y(0) - y(w.breakNights)}
                  fill="var(--ice)"
                />
                {w.week % 4 === 0 && (
                  <text x={left + w.week * wide} y={HEIGHT - 6} style={{ fill: "var(--muted)" }}>
                    {dayWords(w.week * 7)}
                  </text>
                )}
              </g>
            ))}
          </svg>
        )}
      </div>
      <p className="text-muted">
        Nights of each week with ice (hatched), and with ice that breaks something (solid), in the mean. What has ice most often:{" "}
        {data && data.leaders.length > 0
          ? data.leaders.map((l) => `${l.name}, ${Math.round(l.nights)} nights a winter`).join("; ")
          : "nothing"}
        .
      </p>
      {data && data.energy.length > 0 && (
        <section aria-label="What heat takes" className="mt-2" data-season-energy={data.energy.length}>
          <h3 className="font-semibold">What heat takes</h3>
          {data.energy.map((e) => (
            <EnergyBars key={e.kind} kind={e.kind} words={e.words} bars={e.aDayByWeek} />
          ))}
        </section>
      )}
    </Panel>
  );
}
