import { useState } from "react";
import { useCatalogue } from "../../app/catalogue";
import { say, useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { PickField } from "../../ui/QuantityField";
import { Working } from "../../ui/Working";
import { useAnswers, useDocument, useStores } from "../bench/benchStores";
import { winWords } from "../bench/Fixes";
import { useJob } from "../bench/useAsked";
import { useLook } from "../bench/useLook";

/** The same tank or pump in up to four places on one night. */
export function Compared({ rig }: { rig: Rig }) {
  const { document } = useStores();
  const { shows } = useLook();
  const [chosen, setChosen] = useState<string | undefined>();
  const part = rig.parts.some((p) => p.id === chosen) ? chosen : undefined;
  const asked = useJob("places", part === undefined ? undefined : { partId: part });
  const { data } = asked;
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const startHour = useAnswers((s) => s.conditions?.startHour ?? 22);
  const print = usePrint();
  const clock = useClock();
  const at = (s: number | null | undefined) => (s == null ? "no ice" : clock(startHour, s));
  const { numbers } = useCatalogue();
  const rows: [string, (p: NonNullable<typeof data>["places"][number]) => string][] = [
    ["First ice, left full", (p) => at(p.firstIceS)],
    ["at the earliest", (p) => at(p.earliestS)],
    ["at the latest", (p) => at(p.latestS)],
    ["Coldest around it", (p) => print(p.coldestC, "temperature")],
    [`Holds ${print(numbers.holdC, "temperature")} with`, (p) => print(p.holdW, "power")],
    ["Takes room inside", (p) => (p.storageL > 0 ? print(p.storageL, "volume") : "none")],
    ["Mass, full", (p) => print(p.fullKg, "mass")],
    ["Middle above the floor", (p) => print(p.centreM, "length")],
    ["Joints in the wind", (p) => String(p.jointsOutside)],
  ];
  return (
    <Panel className="p-3" aria-label="Tank places">
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 className="text-[17px] font-semibold">Compare tank places</h2>
        <div className="w-56">
          <PickField
            label="The part"
            value={part ?? data?.partId ?? ""}
            options={(data?.offered ?? rig.parts.filter((p) => p.id === part)).map((p) => ({ value: p.id, text: p.name }))}
            onCommit={setChosen}
          />
        </div>
      </div>
      {!data ? (
        <Working words="Trying each place…" asked={asked} />
      ) : data.places.length === 0 ? (
        <p className="text-muted">No tank yet: choose a part.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="mt-2 w-full min-w-[40rem] table-fixed">
            <thead>
              <tr>
                <th className="w-44" />
                {data.places.map((p) => (
                  <th
                    key={p.name}
                    className="pl-3 text-right align-bottom font-semibold"
                    {...(p.edits.length > 0 && shows({ id: p.name, effect: p.effect }))}
                  >
                    {p.name}
                    <span className="block font-normal text-muted">{p.isNow ? "where it is" : "tried"}</span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([name, of]) => (
                <tr key={name} className="border-t border-rule">
                  <th className="py-1 text-left font-normal text-muted">{name}</th>
                  {data.places.map((p) => (
                    <td key={p.name} className="py-1 pl-3 text-right">
                      {of(p)}
                    </td>
                  ))}
                </tr>
              ))}
              <tr className="border-t border-rule">
                <th className="py-1 text-left align-top font-normal text-muted">What changes</th>
                {data.places.map((p) => (
                  <td key={p.name} className="py-1 pl-3 text-right align-top" {...shows({ id: p.name, effect: p.effect })}>
                    {p.edits.length > 0 && (
                      <>
                        {p.wins && <p className="mb-1 text-muted">{winWords(p.wins, print).join("; ") || "nothing else changes"}</p>}
                        <Button
                          aria-label={`Move it ${p.name}`}
                          disabled={previewing}
                          onClick={() => document.commit(`${data.partName}: ${p.name}`, p.edits)}
                        >
                          Move it there
                        </Button>
                      </>
                    )}
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      )}
      {data && data.places.length > 0 && (
        <p className="mt-1 text-muted">
          {data.refused.length > 0 && `No room found: ${data.refused.join(", ")}. `}
          Tested for {print(data.endS, "duration")}. Its lines keep their course: redraw them before you build.{" "}
          {[...new Set(data.places.flatMap((p) => (p.caution ? [say(p.caution, print)] : [])))].join(" ")}
        </p>
      )}
    </Panel>
  );
}
