import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useId, useState } from "react";
import { api, data as opened, Problem, type Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { changed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { Working } from "../../ui/Working";
import { useDocument, useStores } from "../bench/benchStores";
import { useJob } from "../bench/useAsked";
import { measuredRooms } from "./RestsOn";

/** Thermometers of one cold night set what the rooms lose, exchange and hold. */
export function Calibration({ rig }: { rig: Rig }) {
  const { document } = useStores();
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const [text, setText] = useState("");
  const [typed, setTyped] = useState("");
  const id = useId();
  const rooms = measuredRooms(rig);
  return (
    <Panel className="p-3" aria-label="Calibration">
      <h2 className="text-[17px] font-semibold">Calibration</h2>
      <p className="text-muted">
        Hang a thermometer outdoors and in each room for a cold night and note the hours. Heat loss is then measured, not guessed. With a
        heater of known watts, heat capacity is measured too.
      </p>
      {rooms.length > 0 && (
        <p className="mt-1 flex flex-wrap items-center gap-2">
          Measured: {rooms.map((z) => z.name).join(", ")}.
          <Button
            disabled={previewing}
            onClick={() =>
              document.commit(
                "Typed values used",
                rooms.map((z) => changed(`shell/zones/${z.id}`, { measured: null })),
              )
            }
          >
            Use typed values
          </Button>
        </p>
      )}
      <label htmlFor={id} className="mt-2 block text-muted">
        Readings, a line each, with headings: hour, outdoors, {rig.shell.zones[0]?.name ?? "a room"} … and “heater” (W) where one ran
      </label>
      <textarea
        id={id}
        value={typed}
        rows={4}
        spellCheck={false}
        placeholder={`hour,outdoors,${rig.shell.zones.find((z) => z.kind === "living")?.name ?? "living space"},heater\n22:00,-4.5,17.8,0`}
        onChange={(e) => setTyped(e.target.value)}
        className="mt-0.5 w-full rounded-md border border-rule bg-panel p-2 font-mono text-[13px]"
      />
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <Button disabled={typed.trim() === ""} onClick={() => setText(typed)}>
          Fit rooms
        </Button>
        <label className="inline-flex min-h-10 cursor-pointer items-center rounded-md border border-rule px-3 font-medium focus-within:outline-2">
          Open a file
          <input
            type="file"
            accept=".csv,.txt,.tsv"
            className="sr-only"
            onChange={async (e) => {
              const read = await e.target.files?.[0]?.text();
              if (read === undefined) return;
              setTyped(read);
              setText(read);
            }}
          />
        </label>
      </div>
      {text !== "" && <Fitted text={text} rig={rig} previewing={previewing} onDone={() => setText("")} />}
    </Panel>
  );
}

function Fitted({ text, rig, previewing, onDone }: { text: string; rig: Rig; previewing: boolean; onDone(): void }) {
  const { document } = useStores();
  const print = usePrint();
  const rooms = rig.shell.zones.map(({ id, name }) => ({ id, name }));
  const read = useQuery({
    queryKey: ["thermometers", text, rooms],
    queryFn: async ({ signal }) => opened(await api.POST("/api/thermometers", { body: { text, rooms }, signal })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const job = useJob("calibration", read.data ? { readings: read.data } : null);
  const { data } = job;
  if (read.error instanceof Problem && read.error.status === 400)
    return (
      <ul role="alert" className="mt-1">
        {Object.entries(read.error.fields).flatMap(([where, reasons]) =>
          reasons.map((reason) => (
            <li key={`${where} ${reason}`}>
              <strong className="font-semibold">{where}</strong>: {reason}
            </li>
          )),
        )}
      </ul>
    );
  if (!data) return <Working words="Fitting…" asked={{ ...job, isError: job.isError || read.isError }} />;
  const unread = read.data?.unread ?? [];
  const open = data.figures.filter((f) => !f.determined);
  return (
    <section aria-label="The fit" className="mt-2">
      <FitChart data={data} rig={rig} />
      <p>
        Readings are dots, the night that was found is the line; they lie {print(data.residualK, "temperatureDifference")} apart in the root
        mean square.
      </p>
      <table className="mt-1 w-full">
        <thead className="text-muted">
          <tr>
            <th className="text-left font-normal">figure</th>
            <th className="text-right font-normal">typed</th>
            <th className="text-right font-normal">measured</th>
            <th className="text-right font-normal">± one deviation</th>
          </tr>
        </thead>
        <tbody>
          {data.figures.map((f) => (
            <tr key={f.name} className="border-t border-rule" data-determined={f.determined}>
              <td className="py-1">{f.name}</td>
              <td className="py-1 text-right">{print(f.typed.value, f.typed.quantity)}</td>
              <td className="py-1 text-right font-semibold">{f.determined ? print(f.fitted.value, f.fitted.quantity) : "as typed"}</td>
              <td className="py-1 text-right">{f.deviation == null ? "not told" : print(f.deviation, "share")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-muted">
        {open.length > 0 && `Not measurable from this night, left as typed: ${open.map((f) => f.name).join("; ")}. `}
        {!data.heaterKnown && "No heater of known watts ran, so the heat capacity of the warmest room stays as typed. "}
        How heat loss divides between walls and air leakage stays as typed.
        {unread.length > 0 && ` Not read: ${unread.join(", ")}.`}
      </p>
      {data.edits.length > 0 && (
        <Button
          className="mt-1"
          disabled={previewing}
          onClick={() => {
            document.commit("Rooms calibrated", data.edits);
            onDone();
          }}
        >
          Use these values
        </Button>
      )}
    </section>
  );
}

const HEIGHT = 190;
const EDGE = 44;
const marks = ["circle", "square", "diamond", "cross"] as const;

/** Readings as dots, each room with its own shape, and the fitted night as a line. */
function FitChart({ data, rig }: { data: Schema["CalibrationAnswer"]; rig: Rig }) {
  const [box, size] = useSize<HTMLDivElement>();
  const print = usePrint();
  const all = [...data.outdoorC, ...data.series.flatMap((s) => s.measured)];
  const low = Math.floor(Math.min(...all) / 5) * 5;
  const high = Math.ceil(Math.max(...all) / 5) * 5;
  const last = data.timeS.at(-1) ?? 1;
  const x = scaleLinear([0, last], [EDGE, Math.max(EDGE + 1, size.width - 8)]);
  const y = scaleLinear([low, Math.max(low + 1, high)], [HEIGHT - 22, 8]);
  const course = line<number>((_, i) => x(data.timeS[i] ?? 0), y).digits(1);
  const every = Math.max(1, Math.ceil(data.timeS.length / 40));
  return (
    <div ref={box} className="overflow-hidden">
      {size.width > 0 && (
        <svg width={size.width} height={HEIGHT} role="img" aria-label="Readings and the night that was found">
          {[low, 0, high].map((c) =>
            c < low || c > high ? null : (
              <g key={c}>
                <line x1={EDGE} x2={size.width - 8} y1={y(c)} y2={y(c)} stroke={c === 0 ? "var(--ink)" : "var(--rule)"} />
                <text x={EDGE - 6} y={y(c) + 4} textAnchor="end" style={{ fill: "var(--muted)", fontSize: 12 }}>
                  {print(c, "temperature").replace(/\.0(?=\D)/, "")}
                </text>
              </g>
            ),
          )}
          <path
            d={course([...data.outdoorC]) ?? ""}
            fill="none"
            stroke="var(--muted)"
            strokeWidth={3}
            strokeDasharray="0.1 6"
            strokeLinecap="round"
          />
          {data.series.map((s, i) => (
            <g key={s.zoneId}>
              <path d={course([...s.fitted]) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
              <path
                d={s.measured
                  .map((c, t) => (t % every ? "" : markAt(marks[i % marks.length] ?? "circle", x(data.timeS[t] ?? 0), y(c))))
                  .join("")}
                fill="var(--panel)"
                stroke="var(--ink)"
              />
              <text x={EDGE + 12} y={y(s.fitted[0] ?? 0) - 6}>
                {rig.shell.zones.find((z) => z.id === s.zoneId)?.name}
              </text>
            </g>
          ))}
          <text x={EDGE} y={HEIGHT - 4} style={{ fill: "var(--muted)", fontSize: 12 }}>
            start
          </text>
          <text x={size.width - 10} y={HEIGHT - 4} textAnchor="end" style={{ fill: "var(--muted)", fontSize: 12 }}>
            {print(last, "duration")} later
          </text>
        </svg>
      )}
    </div>
  );
}

function markAt(mark: (typeof marks)[number], px: number, py: number) {
  const [a, b] = [px.toFixed(1), py.toFixed(1)];
  if (mark === "square") return `M${(px - 3).toFixed(1)} ${(py - 3).toFixed(1)}h6v6h-6z`;
  if (mark === "diamond") return `M${a} ${(py - 4).toFixed(1)}l4 4l-4 4l-4 -4z`;
  if (mark === "cross") return `M${(px - 3).toFixed(1)} ${(py - 3).toFixed(1)}l6 6m0 -6l-6 6`;
  return `M${(px - 3).toFixed(1)} ${b}a3 3 0 1 0 6 0a3 3 0 1 0 -6 0`;
}
