import { say, useClock, usePrint } from "../../app/units";
import { Panel } from "../../ui/controls";
import { Working } from "../../ui/Working";
import { useAnswers } from "../bench/benchStores";
import { useJob } from "../bench/useAsked";

const SHOWN = 6;

/** Each unknown swung over its range: the one that moves the first ice most is the one to measure. */
export function Guesses() {
  const asked = useJob("guess");
  const { data } = asked;
  const startHour = useAnswers((s) => s.conditions?.startHour ?? 22);
  const print = usePrint();
  const clock = useClock();
  if (!data)
    return (
      <Panel className="p-3" aria-label="Biggest uncertainties">
        <h2 className="text-[17px] font-semibold">Biggest uncertainties</h2>
        <Working words="Trying each of them…" asked={asked} />
      </Panel>
    );
  // What lies far behind the last of them is left out of the bars.
  const all = data.guesses.flatMap((g) => [g.atLowS ?? data.endS, g.atHighS ?? data.endS]);
  const endS = Math.min(data.endS, 1.15 * Math.max(600, ...all));
  const place = (s: number | null | undefined) => (100 * Math.min(s ?? endS, endS)) / endS;
  const [first] = data.guesses;
  const moved = data.guesses.filter((g) => g.swingS > 60);
  return (
    <Panel className="p-3" aria-label="Biggest uncertainties">
      <h2 className="text-[17px] font-semibold">Biggest uncertainties</h2>
      {data.name == null || !first || moved.length === 0 ? (
        <p className="text-muted">Nothing freezes, whatever the guesses.</p>
      ) : (
        <>
          <p>
            {data.name}, about {clock(startHour, data.firstIceS ?? 0)}.{" "}
            <strong className="font-semibold">Measure {first.name} first</strong>
            <span className="text-muted">: {first.measure}.</span>
          </p>
          <ul className="mt-2 flex flex-col gap-1.5">
            {moved.slice(0, SHOWN).map((g) => {
              const [a, b] = [place(g.atLowS), place(g.atHighS)].sort((p, q) => p - q) as [number, number];
              return (
                <li key={g.name} className="grid grid-cols-[10.5rem_minmax(0,1fr)_5rem] items-center gap-2">
                  <span>
                    {g.name}
                    <span className="block text-muted">{say(g.range, print)}</span>
                  </span>
                  <svg
                    width="100%"
                    height="22"
                    role="img"
                    aria-label={`${clock(startHour, g.atLowS ?? data.endS)} to ${clock(startHour, g.atHighS ?? data.endS)}`}
                  >
                    <line x1="0" x2="100%" y1="11" y2="11" stroke="var(--rule)" />
                    <rect
                      x={`${a}%`}
                      width={`${Math.max(0.5, b - a)}%`}
                      y="5"
                      height="12"
                      fill="var(--near)"
                      stroke="var(--ink)"
                      strokeWidth="0.8"
                    />
                    <line
                      x1={`${place(data.firstIceS)}%`}
                      x2={`${place(data.firstIceS)}%`}
                      y1="0"
                      y2="22"
                      stroke="var(--ink)"
                      strokeWidth="2"
                    />
                  </svg>
                  <span className="text-right font-semibold">{print(g.swingS, "duration")}</span>
                </li>
              );
            })}
          </ul>
          <p className="mt-2 text-muted">
            The bar: first ice with it at either end of its range, {clock(startHour, 0)} to {clock(startHour, endS)}; the line: as typed.
          </p>
        </>
      )}
    </Panel>
  );
}
