import { TriangleAlert } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { ofWeights } from "../../document/answersStore";
import { changed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { extentOf, type Frame, toPx } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Panel } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useSize } from "../../ui/useSize";
import { useAnswers, useStores } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";

type Axles = Schema["Axles"];

/** The drawing, the loads under its wheels, px; a wheel's radius, m. */
const HEIGHT = 300;
const UNDER = 56;
const WHEEL_M = 0.35;

/** Where the weight is: what each axle carries, dry and full, and what each tank does to it. */
export function WeightsPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="weights" wanted={ofWeights}>
      {(rig) => (
        <main className="mx-auto grid w-full max-w-[84rem] gap-4 p-4 min-[1000px]:grid-cols-[minmax(0,1fr)_20rem]">
          <div className="flex min-w-0 flex-col gap-4">
            <Loads rig={rig} />
            <Tanks />
          </div>
          <AxleFields rig={rig} />
        </main>
      )}
    </RigPlace>
  );
}

const fields: { field: keyof Axles; label: string; quantity: "length" | "mass" }[] = [
  { field: "frontXM", label: "Front axle, from the rear", quantity: "length" },
  { field: "wheelbaseM", label: "Wheelbase", quantity: "length" },
  { field: "trackM", label: "Track", quantity: "length" },
  { field: "frontKg", label: "Front axle, weighed empty", quantity: "mass" },
  { field: "rearKg", label: "Rear axle, weighed empty", quantity: "mass" },
  { field: "otherKg", label: "People, furniture, gear", quantity: "mass" },
  { field: "frontMostKg", label: "Front axle limit", quantity: "mass" },
  { field: "rearMostKg", label: "Rear axle limit", quantity: "mass" },
  { field: "totalMostKg", label: "Gross weight limit", quantity: "mass" },
];

function AxleFields({ rig }: { rig: Rig }) {
  const { document } = useStores();
  const guess = useAnswers((s) => s.answers?.weights?.axles);
  const axles = rig.shell.axles;
  const shown = axles ?? guess;
  return (
    <Panel className="h-fit p-4" aria-label="Axles">
      <h2 className="text-[17px] font-semibold">Axles</h2>
      <p className="text-muted">
        {axles
          ? "From a weighbridge, each axle on its own, before the water system went in."
          : "Guessed from the arches. Weigh each axle on a weighbridge and enter both weights to see the loads."}{" "}
        Of a trailer the coupling is the front axle.
      </p>
      <div className="mt-3 grid gap-2.5">
        {fields.map((f) => (
          <QuantityField
            key={f.field}
            label={f.label}
            value={shown?.[f.field]}
            disabled={!shown}
            quantity={f.quantity}
            limit={f.quantity === "mass" && f.field !== "otherKg" ? "axles.kg" : `axles.${f.field}`}
            onCommit={(value) => document.commit(f.label, [changed("shell", { axles: { ...shown, [f.field]: value } })])}
          />
        ))}
      </div>
    </Panel>
  );
}

function Loads({ rig }: { rig: Rig }) {
  const weights = useAnswers((s) => s.answers?.weights);
  return weights ? (
    <LoadsOf rig={rig} weights={weights} axles={rig.shell.axles ?? weights.axles} />
  ) : (
    <p className="text-muted">Calculating…</p>
  );
}

function LoadsOf({ rig, weights, axles }: { rig: Rig; weights: Schema["WeightsAnswer"]; axles: Axles }) {
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  const [box, size] = useSize<HTMLDivElement>();
  const known = weights.weighed;
  const [chosen, setChosen] = useState<string | null>(null);
  // Until one is chosen: the heaviest of those over a limit, else of all.
  const over = weights.states.filter((s) => s.over.length > 0);
  const shown =
    weights.states.find((s) => s.id === chosen) ??
    (over.length > 0 ? over : weights.states).reduce((a, b) => (b.systemKg > a.systemKg ? b : a));
  const extent = extentOf(rig, "side");
  const low = Math.min(extent.lowX, axles.frontXM - axles.wheelbaseM - 0.4);
  const high = Math.max(extent.highX, axles.frontXM + 0.4);
  const ground = Math.min(extent.lowO, -0.45);
  const frame: Frame = {
    width: size.width,
    height: HEIGHT,
    scale: Math.max(1, Math.min((size.width - 16) / (high - low), (HEIGHT - UNDER - 16) / (extent.highO - ground))),
    alongM: (low + high) / 2,
    otherM: (extent.highO + ground) / 2,
  };
  frame.otherM -= UNDER / 2 / frame.scale;
  const at = (xM: number) => toPx("side", frame, { xM, yM: 0, zM: ground + WHEEL_M });
  const floor = at(0).y + WHEEL_M * frame.scale;
  const wheels = [
    { name: "Front axle", xM: axles.frontXM, kg: shown.frontKg, most: axles.frontMostKg },
    { name: "Rear axle", xM: axles.frontXM - axles.wheelbaseM, kg: shown.rearKg, most: axles.rearMostKg },
  ];
  return (
    <Panel className="p-4" aria-label="Loads">
      <h2 className="text-[17px] font-semibold">Axle loads</h2>
      <Stale as="p" stale={stale} className="text-muted">
        {`Parts ${print(weights.partsKg, "mass")}, pipe ${print(weights.pipeKg, "mass")}, boards and insulation ${print(weights.liningKg, "mass")}. All are estimates: trust a weighbridge more.`}
      </Stale>
      <div ref={box} className="mt-2 overflow-hidden rounded-[5px] bg-ground">
        {size.width > 0 && (
          <svg width={frame.width} height={frame.height} role="img" aria-label={`From the kerb, with what both axles carry: ${shown.name}`}>
            <RigDrawing rig={rig} about={null} answers={null} view="side" frame={frame} lens="drain" bare />
            <path d={`M0 ${floor}H${frame.width}`} stroke="var(--strong)" />
            {wheels.map((w) => (
              <Wheel
                key={w.name}
                {...w}
                at={at(w.xM)}
                radius={WHEEL_M * frame.scale}
                known={known}
                over={shown.over.includes(w.name.toLowerCase())}
              />
            ))}
          </svg>
        )}
      </div>
      <Stale stale={stale} className="mt-3 overflow-x-auto">
        <table className="w-full min-w-[36rem] table-fixed text-right [&_td]:pl-4">
          <thead className="text-muted">
            <tr>
              <th className="py-1 text-left font-normal">Tanks</th>
              <th className="font-normal">Water system</th>
              {known && (
                <>
                  <th className="font-normal">Total</th>
                  <th className="font-normal">Front axle</th>
                  <th className="font-normal">Rear axle</th>
                  <th className="font-normal">Kerb side, front and rear</th>
                </>
              )}
            </tr>
          </thead>
          <tbody>
            {weights.states.map((s) => (
              <tr key={s.id} className={`border-t border-rule ${s.id === shown.id ? "bg-sunk" : ""}`} data-weights={s.id}>
                <th className="py-1 text-left font-semibold">
                  <button
                    type="button"
                    className="min-h-10 w-full px-1.5 text-left"
                    aria-pressed={s.id === shown.id}
                    onClick={() => setChosen(s.id)}
                  >
                    {s.over.length > 0 && <TriangleAlert size={16} className="mr-1.5 inline align-[-2px]" aria-label="Over" />}
                    {s.name}
                    {s.over.length > 0 && <span className="block font-normal">over: {s.over.join(", ")}</span>}
                  </button>
                </th>
                <td>{print(s.systemKg, "mass")}</td>
                {known && (
                  <>
                    <Load value={s.totalKg} most={axles.totalMostKg} />
                    <Load value={s.frontKg} most={axles.frontMostKg} />
                    <Load value={s.rearKg} most={axles.rearMostKg} />
                    <td>
                      {print(s.frontKerbShare, "share")}, {print(s.rearKerbShare, "share")}
                    </td>
                  </>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </Stale>
    </Panel>
  );
}

/** A wheel on the ground, and what its axle carries. */
function Wheel(props: {
  name: string;
  at: { x: number; y: number };
  radius: number;
  known: boolean;
  kg: number | null | undefined;
  most: number | null | undefined;
  /** By the core. */
  over: boolean;
}) {
  const { name, at, radius, known, kg, most, over } = props;
  const print = usePrint();
  const under = at.y + radius;
  const words = most == null ? "no limit entered" : `${over ? "over its" : ""} limit ${print(most, "mass")}`;
  return (
    <g opacity={known ? 1 : 0.45}>
      <circle cx={at.x} cy={at.y} r={radius} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={2} />
      <circle cx={at.x} cy={at.y} r={4} fill="var(--ink)" />
      {known && (
        <g textAnchor="middle" className="[&_text]:text-[14px]">
          <path d={`M${at.x} ${under + 14}V${under + 2}m-5 6l5 -6l5 6`} fill="none" stroke="var(--ink)" strokeWidth={2} />
          <text x={at.x} y={under + 31} fontWeight={650}>
            {name} {print(kg, "mass")}
          </text>
          <text x={at.x} y={under + 49} fontWeight={over ? 650 : 450} style={{ fill: over ? "var(--verdict-damage)" : "var(--muted)" }}>
            {words}
          </text>
        </g>
      )}
    </g>
  );
}

/** A load, and how much of what is allowed it is. */
function Load({ value, most }: { value: number | null | undefined; most: number | null | undefined }) {
  const print = usePrint();
  const share = value != null && most ? value / most : null;
  return (
    <td className={share !== null && share > 1 ? "font-semibold" : ""}>
      {print(value, "mass")}
      {share !== null && (
        <svg width="100%" height="6" aria-hidden="true" className="mt-0.5 block">
          <rect width="100%" height="6" fill="var(--rule)" />
          <rect width={`${Math.min(100, 100 * share)}%`} height="6" fill={share > 1 ? "var(--ink)" : "var(--strong)"} />
        </svg>
      )}
    </td>
  );
}

function Tanks() {
  const tanks = useAnswers((s) => s.answers?.weights?.tanks);
  const print = usePrint();
  if (!tanks || tanks.length === 0) return null;
  const known = tanks.some((t) => t.frontKg != null);
  return (
    <Panel className="p-4" aria-label="Tanks">
      <h2 className="text-[17px] font-semibold">Tanks</h2>
      <ul className="mt-2 divide-y divide-rule">
        {tanks.map((t) => (
          <li key={t.partId} className="flex flex-wrap gap-x-6 gap-y-1 py-2">
            <span className="w-48 font-semibold">{t.name}</span>
            <span>{print(t.waterKg, "mass")} of water when full</span>
            {known && (
              <span>
                {(t.frontKg ?? 0) < 0
                  ? `lifts the front axle by ${print(-(t.frontKg ?? 0), "mass")}`
                  : `${print(t.frontKg, "mass")} on the front axle`}
                , {print(t.rearKg, "mass")} on the rear
              </span>
            )}
            <span className="text-muted">strap load at 20 g forward {print(t.crashN, "force")}</span>
          </li>
        ))}
      </ul>
      <p className="mt-2 border-l-[3px] border-ink pl-2">
        A full tank is a heavy load in a crash. Rated straps, their maker's fixings and local rules come before these estimates.
      </p>
    </Panel>
  );
}
