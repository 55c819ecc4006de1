import type { Schema } from "../../../api/client";
import { say, usePrint } from "../../../app/units";

const names: Record<Schema["EnergyKind"], string> = { battery: "Battery", fuel: "Fuel", mains: "Mains" };

/** What heat takes of one thing, in words, and bar by bar; bars for which nothing is left are marked. */
export function EnergyBars(props: {
  kind: Schema["EnergyKind"];
  words: Schema["Sentence"];
  bars: number[];
  empty?: (bar: number) => boolean;
}) {
  const { kind, words, bars, empty } = props;
  const print = usePrint();
  const most = Math.max(...bars, 1e-9);
  return (
    <div data-energy={kind}>
      <p>
        <strong className="font-semibold">{names[kind]}</strong>: {say(words, print)}
      </p>
      <svg viewBox={`0 0 ${bars.length * 10} 26`} className="mt-1 h-7 w-full" preserveAspectRatio="none" aria-hidden="true">
        {bars.map((v, i) => (
          <rect
            key={i}
            x={i * 10 + 1}
            width={8}
            y={26 - (24 * v) / most}
            height={(24 * v) / most}
            fill={empty?.(i) ? "var(--stays)" : "var(--strong)"}
          />
        ))}
      </svg>
    </div>
  );
}
