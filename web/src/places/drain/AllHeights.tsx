import { useState } from "react";
import { say, usePrint } from "../../app/units";
import { applyEffect } from "../../document/effects";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { useDocument, usePreview, useStores } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";

const ID = "all-heights";
const FARTHEST_M = 30;
const SHOWN = 8;

/** Heights between which the points of a room may lie, m; left open where it is not said. */
interface Band {
  from?: number | undefined;
  to?: number | undefined;
}

/** What is asked of the heights, as the question is written. */
const asked = (locked: readonly string[], bands: Record<string, Band>, slope: number | null) =>
  [
    ...locked,
    ...Object.entries(bands).flatMap(([zone, { from, to }]) =>
      from === undefined && to === undefined ? [] : [`zones/${zone}=${from ?? -FARTHEST_M}..${to ?? FARTHEST_M}`],
    ),
    ...(slope === null ? [] : [`slope=${slope}`]),
  ].join(",");

/** All heights at once: what would give every line its fall, what forbids it, and what must not move. */
export function AllHeights({ rig }: { rig: Rig }) {
  const { document, preview } = useStores();
  const print = usePrint();
  const [locked, setLocked] = useState<readonly string[]>([]);
  const [bands, setBands] = useState<Record<string, Band>>({});
  const [slope, setSlope] = useState<number | null>(null);
  const inHand = useDocument((s) => s.inHand.length > 0);
  const { data, isError } = useAsked("autoFall", asked(locked, bands, slope));
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
  const lines = locked.filter((p) => p.startsWith("runs/"));
  const lock = (path: string, on: boolean) => {
    preview.setState({ shown: null });
    setLocked(on ? [...locked, path] : locked.filter((p) => p !== path));
  };
  return (
    <Panel className="p-3" aria-label="All heights at once">
      <h2 className="text-[17px] font-semibold">All heights at once</h2>
      {!data ? (
        <p className="text-muted">{isError ? "It could not be asked." : "Working it out…"}</p>
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
                {looking ? "As it is" : data.changes.length > 0 ? "Look at it" : "Show what allows no more"}
              </Button>
              {data.changes.length > 0 && (
                <Button disabled={inHand} onClick={() => document.commit("All heights at once", data.edits)}>
                  Move {data.changes.length} points
                </Button>
              )}
            </div>
          )}
          {data.changes.length > 0 && (
            <>
              <table className="mt-2 w-full">
                <tbody>
                  {data.changes.slice(0, SHOWN).map((c) => (
                    <tr key={c.words} className="border-t border-rule">
                      <td className="py-1">{c.words}</td>
                      <td className="py-1 text-right whitespace-nowrap">
                        {print(c.fromM, "length")} → <strong className="font-semibold">{print(c.toM, "length")}</strong>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {data.changes.length > SHOWN && <p className="text-muted">and {data.changes.length - SHOWN} more, by less.</p>}
            </>
          )}
          {data.chain && (
            <p className="mt-2">
              <span className="text-muted">What allows no more: </span>
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
          label="Shall fall on a slope of"
          value={slope ?? data?.slopeDeg}
          quantity="angle"
          least={0}
          most={10}
          onCommit={(value) => {
            preview.setState({ shown: null });
            setSlope(value);
          }}
        />
      </div>
      <details className="mt-2">
        <summary className="flex min-h-10 cursor-pointer items-center text-muted">Heights by room</summary>
        <div className="max-h-72 overflow-y-auto">
          {rig.shell.zones.map((z) => (
            <div key={z.id} className="grid grid-cols-[minmax(0,1fr)_6.5rem_6.5rem] items-end gap-2 border-t border-rule py-1.5">
              <label className="flex min-h-10 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 shrink-0 accent-[var(--ink)]"
                  checked={locked.includes(`zones/${z.id}`)}
                  onChange={(e) => lock(`zones/${z.id}`, e.target.checked)}
                />
                <span className="min-w-0">
                  {z.name}
                  <span className="block text-muted">nothing moves</span>
                </span>
              </label>
              {(["from", "to"] as const).map((end) => (
                <QuantityField
                  key={end}
                  label={end === "from" ? "Not below" : "Not above"}
                  value={bands[z.id]?.[end] ?? null}
                  quantity="length"
                  disabled={locked.includes(`zones/${z.id}`)}
                  onCommit={(value) => {
                    preview.setState({ shown: null });
                    setBands({ ...bands, [z.id]: { ...bands[z.id], [end]: value ?? undefined } });
                  }}
                />
              ))}
            </div>
          ))}
        </div>
      </details>
      <details>
        <summary className="flex min-h-10 cursor-pointer items-center text-muted">
          {lines.length === 0 ? "Lines that must not move" : `${lines.length} lines must not move`}
        </summary>
        <div className="max-h-64 overflow-y-auto">
          {rig.runs
            .filter((r) => r.service !== "coolant" && r.bends.length > 0)
            .map((r) => (
              <label key={r.id} className="flex min-h-10 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 accent-[var(--ink)]"
                  checked={locked.includes(`runs/${r.id}`)}
                  onChange={(e) => lock(`runs/${r.id}`, e.target.checked)}
                />
                {r.name}
              </label>
            ))}
        </div>
      </details>
    </Panel>
  );
}
