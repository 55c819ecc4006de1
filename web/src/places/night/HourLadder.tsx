import type { Schema } from "../../api/client";
import { plural, useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { stateWords } from "../../drawing/temperature";
import { Panel } from "../../ui/controls";
import { Rows } from "../../ui/Rows";
import { useSize } from "../../ui/useSize";
import { LEFT, RIGHT, xOf } from "./axis";

type Row = { key: string; head: string; safe: number } | { key: string; rung: Schema["RungHours"] };

/** What freezes when, room by room, under the hours of the chart: the room that freezes first leads. */
export function HourLadder({ night, rig, hour }: { night: Schema["NightHoursAnswer"]; rig: Rig; hour: number }) {
  const [box, size] = useSize<HTMLDivElement>();
  const print = usePrint();
  const broken = night.rungs.filter((r) => r.rung.breaks);
  const shutIn = broken.filter((r) => r.rung.shutIn).length;
  const priced = broken.filter((r) => r.money != null);
  const rooms = Map.groupBy(night.rungs, (r) => r.rung.zoneId ?? "");
  const nameOf = (zone: string) => rig.shell.zones.find((z) => z.id === zone)?.name ?? "outdoors";
  const safe = [...rooms].filter(([, rungs]) => rungs.every((r) => r.rung.firstIceS == null));
  const rows: Row[] = [...rooms].flatMap(([zone, rungs]) => {
    const frozen = rungs.filter((r) => r.rung.firstIceS != null);
    if (frozen.length === 0) return [];
    return [
      { key: `room:${zone}`, head: nameOf(zone), safe: rungs.length - frozen.length },
      ...frozen.map((rung) => ({ key: rung.rung.id, rung })),
    ];
  });
  return (
    <Panel className="flex max-h-96 min-h-0 flex-col pt-2" aria-label="What freezes when">
      <h2 className="flex flex-wrap items-baseline gap-x-4 px-3 text-[17px] font-semibold">
        What freezes when
        <span className="text-[14px] font-normal text-muted">
          blue: water; hatched: ice grows; dark: solid; the thin line: between the cold and the warm side of what is guessed
        </span>
      </h2>
      <div ref={box} className={`mt-1 flex min-h-0 flex-col ${rows.length > 0 ? "grow" : ""}`}>
        {size.width > 0 && (
          <Rows
            items={rows}
            keyOf={(r) => r.key}
            row={(r) =>
              "head" in r ? (
                <h3 className="flex items-baseline gap-3 border-t border-rule px-3 pt-2 pb-0.5 font-semibold">
                  {r.head}
                  <span className="font-normal text-muted">{r.safe > 0 && `${plural(r.safe, "thing")} without ice`}</span>
                </h3>
              ) : (
                <HourRow of={r.rung} night={night} width={size.width - 24} hour={hour} />
              )
            }
          />
        )}
      </div>
      {safe.length > 0 && (
        <p className="shrink-0 border-t border-rule px-3 pt-2">
          <strong className="font-semibold">No ice in</strong>{" "}
          {safe.map(([zone, rungs]) => `${nameOf(zone)} (${plural(rungs.length, "thing")})`).join(", ")}.
        </p>
      )}
      {broken.length > 0 && (
        <p className="shrink-0 border-t border-rule px-3 pt-2" data-broken={broken.length}>
          <strong className="font-semibold">
            Ice breaks {broken.length === 1 ? "one thing" : `${broken.length} things`}; the rest freezes without damage.
          </strong>
          {shutIn > 0 &&
            ` ${shutIn === 1 ? "One line freezes" : `${shutIn} lines freeze`} trapped between two ice plugs, and burst${shutIn === 1 ? "s" : ""} at a fitting.`}
          {priced.length > 0 &&
            ` At your prices ${priced.length === 1 ? "one of them costs" : `${priced.length} of them cost`} ${print(
              priced.reduce((sum, r) => sum + (r.money ?? 0), 0),
              "number",
            )}.`}
        </p>
      )}
      <p className="shrink-0 px-3 py-2 text-muted">
        Estimates for still water. Trust a thermometer in the coldest corner more. Where something burns, fit a carbon monoxide alarm and
        keep its air free.
      </p>
    </Panel>
  );
}

function HourRow({ of, night, width, hour }: { of: Schema["RungHours"]; night: Schema["NightHoursAnswer"]; width: number; hour: number }) {
  const clock = useClock();
  const { rung: r } = of;
  const hours = night.weather.length - 1;
  const x = (s: number | null | undefined) => xOf(s ?? hours * 3600, width, hours);
  const [first, solid, end] = [x(r.firstIceS), x(r.solidS), x(null)];
  return (
    <svg
      width={width}
      height={30}
      className="mx-3 block"
      role="img"
      aria-label={`${r.name}: ${r.breaks ? "breaks" : "ice"} about ${clock(night.startHour, r.atS ?? 0)}`}
    >
      <title>{r.shutIn ? `${stateWords[r.state]}; freezes between two blocks with no way to expand` : stateWords[r.state]}</title>
      <text x={0} y={19} style={{ fontWeight: r.breaks ? 600 : 400 }}>
        {r.name.length > 28 ? `${r.name.slice(0, 27)}…` : r.name}
      </text>
      <rect x={LEFT} y={9} width={Math.max(0, first - LEFT)} height={10} fill="var(--near)" opacity={0.55} />
      <rect x={first} y={9} width={Math.max(0, solid - first)} height={10} fill="url(#ice-hatch)" />
      <rect x={solid} y={9} width={Math.max(0, end - solid)} height={10} fill="var(--ice)" />
      <path
        d={`M${x(of.earliestS)} 21v4M${x(of.earliestS)} 23H${x(of.latestS)}${of.latestS == null ? "" : "m0 -2v4"}`}
        stroke="var(--strong)"
        fill="none"
      />
      <line x1={x(hour * 3600)} x2={x(hour * 3600)} y1={0} y2={30} stroke="var(--ink)" strokeWidth={1} opacity={0.5} />
      <text x={width - RIGHT + 8} y={19} style={{ fontWeight: r.breaks ? 600 : 400 }}>
        {clock(night.startHour, r.atS ?? 0).replace(" next day", "")}
        {r.breaks ? ", breaks" : ""}
      </text>
    </svg>
  );
}
