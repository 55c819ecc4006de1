import { scaleLinear } from "d3-scale";
import type { Schema } from "../../api/client";
import { type Print, say, usePrint } from "../../app/units";
import { changed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "../bench/benchStores";
import { SpiritLevel } from "../bench/SpiritLevel";

type Answer = Schema["ParkingAnswer"];

const limits: { field: keyof Schema["ParkingLimits"]; label: string; quantity: Schema["Quantity"] }[] = [
  { field: "slopeDeg", label: "Within a slope of", quantity: "angle" },
  { field: "outsideL", label: "Outside tanks, at most", quantity: "volume" },
  { field: "breakableL", label: "In a part that ice breaks", quantity: "volume" },
  { field: "tankShare", label: "Of a tank's content", quantity: "share" },
];

/** The parking envelope: how the rig may stand and still drain to its limits. */
export function Parking({ rig }: { rig: Rig }) {
  const { document, answers } = useStores();
  const told = useAnswers((s) => s.answers?.parking);
  const parked = useAnswers((s) => s.conditions?.parked);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!told || !parked) return <p className="p-3 text-muted">Calculating…</p>;
  const park = (to: Schema["Attitude"]) => answers.setConditions({ parked: to });
  return (
    <Panel className="p-3" aria-label="Parking slope">
      <div className="flex flex-wrap items-start gap-x-4 gap-y-2">
        <div className="min-w-0 grow basis-72">
          <h2 className="text-[17px] font-semibold">Parking slope</h2>
          <p className="mt-0.5" data-best>
            {say(told.bestWords, print)}
          </p>
          <p className="text-muted">
            Within {print(told.limits.slopeDeg, "angle")} either way it drains on {print(told.share, "share")} of the slopes.
            {told.best && ` The best slope is ${print(told.marginDeg, "angle")} from the edge.`}
          </p>
        </div>
        <SpiritLevel parked={parked} onChange={park} />
      </div>
      <Stale stale={stale} className="mt-2 grid gap-4 min-[760px]:grid-cols-[auto_minmax(0,1fr)]">
        <SlopeMap told={told} parked={parked} />
        <div className="flex min-w-0 flex-col gap-3">
          <p>
            <span className="text-muted">Now, {told.nowWords}: </span>
            <strong className="font-semibold">{told.now === "none" ? "drains to the limits" : nowWords[told.now]}</strong>
            {told.outsideL != null && <span className="text-muted">, {print(told.outsideL, "volume")} in dips outside tanks.</span>}
          </p>
          {told.best && (told.best.pitchDeg !== parked.pitchDeg || told.best.rollDeg !== parked.rollDeg) && (
            <Button className="self-start" onClick={() => told.best && park(told.best)}>
              Show it on this slope
            </Button>
          )}
          {told.sides.length > 0 && (
            <table className="w-full">
              <thead className="text-left text-muted">
                <tr>
                  <th className="font-normal">Tipped from the best</th>
                  <th className="text-right font-normal">it drains to</th>
                  <th className="pl-4 font-normal">then too much stays in</th>
                </tr>
              </thead>
              <tbody>
                {told.sides.map((s) => (
                  <tr key={s.side} className="border-t border-rule">
                    <td className="py-1.5">{s.side}</td>
                    <td className="py-1.5 text-right font-semibold">{s.farDeg == null ? "the map's edge" : slopeWords(s, print)}</td>
                    <td className="py-1.5 pl-4">{s.farDeg == null ? "" : s.words}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <fieldset className="grid grid-cols-2 gap-2.5">
            <legend className="mb-1 text-muted">
              It counts as drained when no more than this stays in dips. Water emptied by hand, airlocks and film are not counted.
            </legend>
            {limits.map((l) => (
              <QuantityField
                key={l.field}
                label={l.label}
                value={told.limits[l.field]}
                quantity={l.quantity}
                limit={`brief.parking.${l.field}`}
                onCommit={(value) =>
                  document.commit(l.label, [changed("brief", { parking: { ...(rig.brief.parking ?? told.limits), [l.field]: value } })])
                }
              />
            ))}
          </fieldset>
        </div>
      </Stale>
    </Panel>
  );
}

const other: Record<string, string> = { up: "down", down: "up" };

/** A slope from level: of the side that is tipped up or down, or still of the other. */
const slopeWords = ({ side, farDeg }: Answer["sides"][number], print: Print) =>
  `${print(Math.abs(farDeg ?? 0), "angle")} ${(farDeg ?? 0) >= 0 ? side : side.replace(/up|down/, (w) => other[w] ?? w)}`;

const nowWords: Record<Answer["now"], string> = {
  none: "drains to the limits",
  outside: "too much stays in pipes and parts",
  breakable: "too much stays in a part that ice breaks",
  tank: "too much stays in a tank",
};

const [SIDE, LEFT, BOTTOM] = [260, 34, 34];
const fills: Record<string, string> = { o: "var(--panel)", p: "url(#solid-hatch)", b: "url(#ice-hatch)", t: "var(--sunk)" };

/** Pitch upwards and roll to the right: where it drains is white, framed by what it stands on. */
function SlopeMap({ told, parked }: { told: Answer; parked: Schema["Attitude"] }) {
  const print = usePrint();
  const count = told.rows.length;
  const cell = SIDE / Math.max(1, count);
  const degrees = [-told.mostDeg, told.mostDeg];
  const x = scaleLinear(degrees, [LEFT, LEFT + SIDE]).clamp(true);
  const y = scaleLinear(degrees, [SIDE, 0]).clamp(true);
  const ticks = x.ticks(4);
  return (
    <figure className="m-0">
      <svg
        width={LEFT + SIDE + 8}
        height={SIDE + BOTTOM}
        role="img"
        aria-label={`Where it drains: ${say(told.bestWords, print)}`}
        data-envelope
      >
        <rect x={LEFT} y={0} width={SIDE} height={SIDE} fill="var(--sunk)" />
        {told.rows.map((row, p) => {
          const runs: { letter: string; from: number; to: number }[] = [];
          for (let r = 0; r < row.length; r++) {
            const last = runs.at(-1);
            if (last && last.letter === row[r]) last.to = r + 1;
            else runs.push({ letter: row[r] as string, from: r, to: r + 1 });
          }
          const key = (told.mostDeg * (2 * p)) / count;
          return runs.map((r) => (
            <rect
              key={`${key}:${r.from}`}
              x={LEFT + r.from * cell}
              y={SIDE - (p + 1) * cell}
              width={(r.to - r.from) * cell + 0.3}
              height={cell + 0.3}
              fill={fills[r.letter]}
              data-cell={r.letter}
            />
          ));
        })}
        {told.limits.slopeDeg > 0 && (
          <rect
            x={x(-told.limits.slopeDeg)}
            y={y(told.limits.slopeDeg)}
            width={x(told.limits.slopeDeg) - x(-told.limits.slopeDeg)}
            height={y(-told.limits.slopeDeg) - y(told.limits.slopeDeg)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray="5 3"
          />
        )}
        <path d={`M${x(0)} 0V${SIDE}M${LEFT} ${y(0)}H${LEFT + SIDE}`} stroke="var(--strong)" strokeWidth={0.75} />
        {ticks.map((t) => (
          <g key={t} style={{ fill: "var(--muted)" }}>
            <text x={x(t)} y={SIDE + 14} textAnchor="middle">
              {t}°
            </text>
            <text x={LEFT - 5} y={Math.min(SIDE - 2, Math.max(11, y(t) + 4))} textAnchor="end">
              {t}°
            </text>
          </g>
        ))}
        <text x={LEFT} y={SIDE + 29} style={{ fill: "var(--muted)" }}>
          ← kerb side up
        </text>
        <text x={LEFT + SIDE} y={SIDE + 29} textAnchor="end" style={{ fill: "var(--muted)" }}>
          kerb side down →
        </text>
        <text x={LEFT + 5} y={12} style={{ paintOrder: "stroke" }} stroke="var(--panel)" strokeWidth={3}>
          nose up
        </text>
        <text x={LEFT + 5} y={SIDE - 5} style={{ paintOrder: "stroke" }} stroke="var(--panel)" strokeWidth={3}>
          nose down
        </text>
        {told.best && (
          <path
            d={`M${x(told.best.rollDeg) - 7} ${y(told.best.pitchDeg)}h14M${x(told.best.rollDeg)} ${y(told.best.pitchDeg) - 7}v14`}
            stroke="var(--safe)"
            strokeWidth={3}
          />
        )}
        <circle cx={x(parked.rollDeg)} cy={y(parked.pitchDeg)} r={5.5} fill="var(--ink)" stroke="var(--panel)" strokeWidth={2} />
      </svg>
      <figcaption className="flex max-w-[300px] flex-wrap gap-x-3 gap-y-1 text-muted">
        <Swatch letter="o" words="drains" />
        <Swatch letter="p" words="pipes keep too much" />
        <Swatch letter="b" words="a part that breaks" />
        <Swatch letter="t" words="a tank" />
        <span>● now</span>
        <span>
          <span className="font-bold text-safe">+</span> best
        </span>
      </figcaption>
    </figure>
  );
}

function Swatch({ letter, words }: { letter: string; words: string }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width={16} height={12} aria-hidden="true">
        <rect width={16} height={12} fill={fills[letter]} stroke="var(--strong)" />
      </svg>
      {words}
    </span>
  );
}
