import { useState } from "react";
import type { Schema } from "../../api/client";
import { plural, say, usePrint } from "../../app/units";
import { applyEffect } from "../../document/effects";
import { indexOf, type Rig } from "../../document/geometry";
import { Button, Panel, ShowAll } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { Working } from "../../ui/Working";
import { useDocument, usePreview, useStores } from "../bench/benchStores";
import { useJob } from "../bench/useAsked";

const ID = "all-heights";
/** The largest changes; the rest is asked for. */
const SHOWN = 4;

/** What is asked of one room or point: heights between which it may lie, m, and the slope it shall stand, degrees; left open where it is not said. */
interface Limit {
  held?: boolean | undefined;
  from?: number | undefined;
  to?: number | undefined;
  slope?: number | undefined;
}

/** What is asked of the heights, of what is still in the rig. */
function asked(limits: Record<string, Limit>, slope: number | null, rig: Rig): Schema["AutoFallInput"] {
  const { runs, parts } = indexOf(rig);
  const here = Object.entries(limits).filter(([path]) => {
    const [list, id = "", , bend] = path.split("/");
    if (list === "zones") return rig.shell.zones.some((z) => z.id === id);
    return list === "parts" ? parts.has(id) : bend === undefined ? runs.has(id) : runs.get(id)?.bends.some((b) => b.id === bend);
  });
  return {
    locked: here.filter(([, l]) => l.held).map(([path]) => path),
    bands: here.flatMap(([thing, { from, to }]) =>
      from === undefined && to === undefined ? [] : [{ thing, lowestM: from ?? null, highestM: to ?? null }],
    ),
    slopes: here.flatMap(([thing, { slope: own }]) => (own === undefined ? [] : [{ thing, slopeDeg: own }])),
    ...(slope !== null && { slopeDeg: slope }),
  };
}

/** A lowest height is never above the highest. */
const limitsOf = (part: "from" | "to" | "slope", { from, to }: Limit) =>
  part === "slope"
    ? { least: 0, most: 10 }
    : part === "from"
      ? to === undefined
        ? {}
        : { most: to }
      : from === undefined
        ? {}
        : { least: from };

/** What is asked of one room or one point. */
function LimitRow({ name, held, limit, onLimit }: { name: string; held: string; limit: Limit; onLimit: (limit: Limit) => void }) {
  return (
    <div className="border-t border-rule py-1.5">
      <label className="flex min-h-10 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-[var(--ink)]"
          checked={limit.held === true}
          onChange={(e) => onLimit({ ...limit, held: e.target.checked })}
        />
        <span className="min-w-0">
          {name}
          <span className="text-muted">: {held}</span>
        </span>
      </label>
      <div className="grid grid-cols-3 items-end gap-2">
        {(["from", "to", "slope"] as const).map((part) => (
          <QuantityField
            key={part}
            label={part === "from" ? "Not below" : part === "to" ? "Not above" : "On a slope of"}
            value={limit[part] ?? null}
            quantity={part === "slope" ? "angle" : "length"}
            {...limitsOf(part, limit)}
            disabled={limit.held === true}
            onCommit={(value) => onLimit({ ...limit, [part]: value ?? undefined })}
          />
        ))}
      </div>
    </div>
  );
}

/** All heights at once: what would give every line its fall, what forbids it, and what must not move. */
export function AllHeights({ rig }: { rig: Rig }) {
  const { document, preview } = useStores();
  const print = usePrint();
  const [limits, setLimits] = useState<Record<string, Limit>>({});
  const [points, setPoints] = useState<Record<string, string>>({});
  const [all, setAll] = useState(false);
  const [slope, setSlope] = useState<number | null>(null);
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const job = useJob("autoFall", asked(limits, slope, rig));
  const { data } = job;
  const shown = usePreview();
  const looking = shown?.id === ID;
  const look = () =>
    preview.setState({
      shown:
        looking || !data
          ? null
          : {
              id: ID,
              on: rig,
              rig: data.effect ? applyEffect(rig, data.effect) : rig,
              band: null,
              ...(data.chain && { chain: data.chain.places.map((p) => p.at) }),
            },
    });
  const lines = rig.runs.filter((r) => limits[`runs/${r.id}`]?.held);
  const limit = (path: string, to: Limit) => {
    preview.setState({ shown: null });
    setLimits({ ...limits, [path]: to });
  };
  return (
    <Panel className="p-3" aria-label="All heights at once">
      <h2 className="text-[17px] font-semibold">All heights at once</h2>
      {!data ? (
        <Working words="Calculating…" asked={job} />
      ) : (
        <>
          <p className="mt-0.5" data-heights={data.feasible}>
            {say(data.verdict, print)}
          </p>
          <dl className="mt-2 grid grid-cols-[1fr_auto_auto] gap-x-4 gap-y-1">
            <dt className="text-muted" />
            <dd className="text-right text-muted">now</dd>
            <dd className="text-right text-muted">then</dd>
            <dt>Least fall beyond a slope of {print(data.slopeDeg, "angle")}</dt>
            <dd className="text-right font-semibold">{print(data.marginBefore, "fall")}</dd>
            <dd className="text-right font-semibold">{print(data.marginAfter, "fall")}</dd>
            <dt>Stays when level</dt>
            <dd className="text-right font-semibold">{print(data.beforeL, "volume")}</dd>
            <dd className="text-right font-semibold">{print(data.afterL, "volume")}</dd>
            <dt>Slopes on which it drains, within {print(data.slopeDeg, "angle")}</dt>
            <dd className="text-right font-semibold">{print(data.shareBefore, "share")}</dd>
            <dd className="text-right font-semibold">{print(data.shareAfter, "share")}</dd>
          </dl>
          {(data.changes.length > 0 || data.chain) && (
            <div className="mt-2 flex flex-wrap gap-2">
              <Button aria-pressed={looking} onClick={look} className="aria-pressed:border-ink">
                {looking ? "Hide preview" : data.changes.length > 0 ? "Preview" : "Show the limit"}
              </Button>
              {data.changes.length > 0 && (
                <Button disabled={previewing} onClick={() => document.commit("All heights at once", data.edits)}>
                  Move {data.changes.length} points
                </Button>
              )}
            </div>
          )}
          {data.changes.length > 0 && (
            <>
              <table className="mt-2 w-full">
                <tbody>
                  {(all ? data.changes : data.changes.slice(0, SHOWN)).map((c) => (
                    <tr key={c.id} className="border-t border-rule">
                      <td className="py-1">{c.words}</td>
                      <td className="py-1 text-right whitespace-nowrap">
                        {print(c.fromM, "length")} → <strong className="font-semibold">{print(c.toM, "length")}</strong>
                      </td>
                      <td className="py-0.5 pl-2 text-right">
                        <Button
                          aria-label={`Lock ${c.words}`}
                          onClick={() => {
                            setPoints({ ...points, [c.id]: c.words });
                            limit(c.id, { ...limits[c.id], held: true });
                          }}
                        >
                          Lock
                        </Button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {data.changes.length > SHOWN && <ShowAll all={all} count={plural(data.changes.length, "point")} onChange={setAll} />}
            </>
          )}
          {data.chain && (
            <p className="mt-2">
              <span className="text-muted">Limited by: </span>
              {data.chain.points.join(" → ")}
              <span className="text-muted">
                : {print(data.chain.availableM, "length")} of height over {print(data.chain.lengthM, "length")}, of which the slope takes{" "}
                {print(data.chain.forParkingM, "length")}.
              </span>
            </p>
          )}
          {data.toHelp.map((h) => (
            <p key={say(h, print)} className="mt-1">
              {say(h, print)}
            </p>
          ))}
          {data.drainsSpare.length > 0 && (
            <p className="mt-2 text-muted">
              As the lines lie now they would do without {data.drainsSpare.join(", ")}; they need {data.drainsNeeded.join(", ")}.
            </p>
          )}
        </>
      )}
      <div className="mt-2 max-w-56">
        <QuantityField
          label="Fall beyond a parking slope of"
          value={slope ?? data?.slopeDeg}
          quantity="angle"
          limit="autoFall.slopeDeg"
          onCommit={(value) => {
            preview.setState({ shown: null });
            setSlope(value);
          }}
        />
      </div>
      {Object.keys(points).length > 0 && (
        <section className="mt-2" aria-label="Points with limits">
          <h3 className="text-muted">Points with limits</h3>
          {Object.entries(points).map(([path, words]) => (
            <LimitRow key={path} name={words} held="stays where it is" limit={limits[path] ?? {}} onLimit={(to) => limit(path, to)} />
          ))}
        </section>
      )}
      <details className="mt-2">
        <summary className="flex min-h-10 cursor-pointer items-center text-muted">Heights and slopes by room</summary>
        <div className="max-h-72 overflow-y-auto">
          {rig.shell.zones.map((z) => (
            <LimitRow
              key={z.id}
              name={z.name}
              held="nothing moves"
              limit={limits[`zones/${z.id}`] ?? {}}
              onLimit={(to) => limit(`zones/${z.id}`, to)}
            />
          ))}
        </div>
      </details>
      <details>
        <summary className="flex min-h-10 cursor-pointer items-center text-muted">
          {lines.length === 0 ? "Fixed lines" : `${lines.length} fixed lines`}
        </summary>
        <div className="max-h-64 overflow-y-auto">
          {rig.runs
            .filter((r) => r.service !== "coolant" && r.bends.length > 0)
            .map((r) => (
              <label key={r.id} className="flex min-h-10 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 accent-[var(--ink)]"
                  checked={limits[`runs/${r.id}`]?.held === true}
                  onChange={(e) => limit(`runs/${r.id}`, { held: e.target.checked })}
                />
                {r.name}
              </label>
            ))}
        </div>
      </details>
    </Panel>
  );
}
