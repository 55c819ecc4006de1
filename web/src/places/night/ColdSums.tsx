import { useState } from "react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Choice, Panel } from "../../ui/controls";

type Of = "rooms" | "parts";
const SHOWN = 12;
const BAR = 30;

/** How long and how far it lies below zero, outdoors, in each room and around each part; and what heaters give hour by hour. */
export function ColdSums({ night, rig }: { night: Schema["NightHoursAnswer"]; rig: Rig }) {
  const print = usePrint();
  const [of, setOf] = useState<Of>("rooms");
  const hours = (h: number) => print(Math.round(h * 4) / 4, "number");
  const name = (id: string) => rig.shell.zones.find((z) => z.id === id)?.name ?? id;
  const rows =
    of === "rooms"
      ? [
          { key: "outdoors", name: "outdoors", of: night.outdoors },
          ...night.zones.map((z) => ({ key: z.zoneId, name: name(z.zoneId), of: z.exposure })),
        ]
      : night.rungs
          .map((r) => ({ key: r.rung.id, name: r.rung.name, of: r.exposure }))
          .sort((a, b) => b.of.degreeHours - a.of.degreeHours)
          .slice(0, SHOWN);
  const heated = night.zones.filter((z) => z.heaterWh.some((wh) => wh > 0));
  const most = Math.max(1, ...heated.flatMap((z) => z.heaterWh));
  return (
    <Panel className="p-3" aria-label="Cold and heat, until morning">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-[17px] font-semibold">Below zero, until morning</h2>
        <Choice<Of>
          label="Below zero"
          value={of}
          onChange={setOf}
          options={[
            { value: "rooms", text: "Rooms" },
            { value: "parts", text: "Parts" },
          ]}
        />
      </div>
      <table className="mt-1 w-full">
        <thead className="text-muted">
          <tr>
            <th className="text-left font-normal">{of === "rooms" ? "air" : "air around"}</th>
            <th className="pl-2 text-right font-normal">hours</th>
            <th className="pl-2 text-right font-normal">at a stretch</th>
            <th className="pl-2 text-right font-normal">degree-hours</th>
            <th className="pl-2 text-right font-normal">coldest</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.key} className="border-t border-rule">
              <td className="py-1">{r.name}</td>
              <td className="py-1 text-right">{hours(r.of.hoursBelow)}</td>
              <td className="py-1 text-right">{hours(r.of.longestSpellH)}</td>
              <td className="py-1 text-right">{Math.round(r.of.degreeHours)}</td>
              <td className="py-1 text-right font-semibold whitespace-nowrap">{print(r.of.coldestC, "temperature")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {heated.length > 0 && (
        <section className="mt-3" aria-label="What heaters give">
          <h3 className="text-muted">Heaters until morning; hour by hour, at most {print(most, "energy")}</h3>
          {heated.map((z) => (
            <div key={z.zoneId} className="grid grid-cols-[8rem_minmax(0,1fr)_5rem] items-end gap-2 border-t border-rule py-1">
              <span className="truncate">{name(z.zoneId)}</span>
              <svg
                className="block w-full"
                height={BAR}
                viewBox={`0 0 ${z.heaterWh.length} ${BAR}`}
                preserveAspectRatio="none"
                role="img"
                aria-label={`${name(z.zoneId)}: ${z.heaterWh.map((wh) => Math.round(wh)).join(", ")} Wh`}
              >
                {z.heaterWh.map((wh, h) => (
                  <rect
                    key={h}
                    x={h + 0.08}
                    width={0.84}
                    y={BAR - (wh / most) * BAR}
                    height={(wh / most) * BAR}
                    fill="var(--ink)"
                    opacity={0.7}
                  />
                ))}
              </svg>
              <strong className="text-right font-semibold">{print(z.untilMorningWh, "energy")}</strong>
            </div>
          ))}
        </section>
      )}
    </Panel>
  );
}
