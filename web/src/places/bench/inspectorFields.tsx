import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { changed } from "../../document/edits";
import { indexOf, type Rig, type Xyz } from "../../document/geometry";
import { moverOf, nameOf, placeOf, putAt, type Thing } from "../../document/things";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useStores } from "./benchStores";
import { useActions } from "./useActions";

/** What kind of thing is in hand, and its name. */
export function Heading({ kind, children }: { kind: string; children: ReactNode }) {
  return (
    <header>
      <p className="text-muted">{kind}</p>
      <h3 className="text-[15px] leading-tight font-semibold break-words">{children}</h3>
    </header>
  );
}

/** Runs an edit that changes fields of one thing of the document as it is now. */
export function useChange() {
  const { commit } = useActions();
  return (what: string, thing: string, values: object) => commit(what, [changed(thing, values)]);
}

const origin: Xyz = { xM: 0, yM: 0, zM: 0 };

const placeWords = { xM: "From the rear", yM: "From the kerb", zM: "Above floor" } as const;

/** How far from its corner something of a vehicle may lie, m. */
const within = { xM: [-5, 25], yM: [-5, 10], zM: [-5, 5] } as const;

/** Where a thing is, or a place `by` so much beside it, each axis to be typed. Which point that is, is said. */
export function PlaceFields({ rig, thing, of, by = origin }: { rig: Rig; thing: Thing; of: string; by?: Xyz | undefined }) {
  const { document } = useStores();
  const actions = useActions();
  const at = placeOf(rig, thing);
  // A figure typed for a port moves it on its part, whatever part that is; a hand pulls a joint by its port.
  const mover = thing.kind === "port" ? thing : moverOf(rig, thing, actions.fixed);
  const box = thing.kind === "port" ? indexOf(rig).parts.get(thing.partId)?.box : undefined;
  const set = (axis: keyof Xyz) => (value: number) => {
    // By the document as it is when the value is kept, not as it was when it was typed.
    const now = document.getState().rig as Rig;
    const from = placeOf(now, thing);
    const start = mover && placeOf(now, mover);
    if (!from || !mover || !start) return;
    actions.commit(`${nameOf(now, thing)} moved`, [putAt(now, mover, { ...start, [axis]: start[axis] + value - by[axis] - from[axis] })]);
  };
  return (
    <fieldset>
      <legend className="text-muted">{of}</legend>
      <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(4.9rem,1fr))] gap-2">
        {(["xM", "yM", "zM"] as const).map((axis) => (
          <QuantityField
            key={axis}
            label={placeWords[axis]}
            value={at && at[axis] + by[axis]}
            quantity="length"
            least={box ? box.at[axis] : within[axis][0]}
            most={box ? box.at[axis] + box.size[axis] : within[axis][1]}
            disabled={!mover}
            onCommit={set(axis)}
          />
        ))}
      </div>
    </fieldset>
  );
}

const MOST_LAYERS = 3;

/** A sleeve to choose: its material, its thickness once it has one, and what lies over it. */
export function SleeveFields({ label, none, sleeve, onCommit, layer = 1 }: SleeveProps) {
  const { catalogue, usual } = useCatalogue();
  return (
    <>
      <PickField
        label={label}
        value={sleeve ? (sleeve.thicknessM > 0 ? sleeve.material : "bare") : ""}
        options={[
          { value: "", text: none },
          ...(none === "none" || layer > 1 ? [] : [{ value: "bare", text: "none" }]),
          ...(catalogue?.solids ?? []).map((s) => ({ value: s.id, text: s.name })),
        ]}
        onCommit={(v) =>
          onCommit(
            v === "bare"
              ? { material: sleeve?.material ?? usual("sleeve"), thicknessM: 0 }
              : v
                ? { ...sleeve, material: v, thicknessM: sleeve?.thicknessM || (layer > 1 ? 0.005 : 0.013) }
                : null,
          )
        }
      />
      {sleeve && sleeve.thicknessM > 0 && (
        <>
          <QuantityField
            label="Thickness"
            value={sleeve.thicknessM}
            quantity="length"
            limit="sleeve.thicknessM"
            onCommit={(thicknessM) => onCommit({ ...sleeve, thicknessM })}
          />
          {layer === 1 && (
            <QuantityField
              label="Uninsulated share"
              value={sleeve.gapShare ?? 0}
              quantity="share"
              limit="sleeve.gapShare"
              onCommit={(gapShare) => onCommit({ ...sleeve, gapShare: gapShare > 0 ? gapShare : null })}
            />
          )}
          {layer < MOST_LAYERS && (
            <SleeveFields
              label={layer === 1 ? "Outer layer" : "Outermost layer"}
              none="nothing"
              sleeve={sleeve.over}
              layer={layer + 1}
              onCommit={(over) => onCommit({ ...sleeve, over })}
            />
          )}
        </>
      )}
    </>
  );
}

interface SleeveProps {
  label: string;
  /** What it means to choose nothing. */
  none: string;
  sleeve: Schema["Sleeve"] | null | undefined;
  /** 1 around the thing itself, more for what lies over that. */
  layer?: number;
  onCommit(sleeve: Schema["Sleeve"] | null): void;
}

const sides: { side: Schema["Facing"]; text: string }[] = [
  { side: "up", text: "Top" },
  { side: "down", text: "Underside" },
  { side: "rear", text: "Rear" },
  { side: "forward", text: "Front" },
  { side: "kerbSide", text: "Kerb side" },
  { side: "farSide", text: "Far side" },
];

/** The sides of a part that its jacket is on: one at least. */
export function JacketSides({ off, onCommit }: { off: Schema["Facing"][]; onCommit(off: Schema["Facing"][] | null): void }) {
  return (
    <fieldset className="col-span-full">
      <legend className="text-muted">The jacket is on its</legend>
      <div className="mt-1 flex flex-wrap gap-1">
        {sides.map(({ side, text }) => {
          const on = !off.includes(side);
          const next = on ? [...off, side] : off.filter((s) => s !== side);
          return (
            <button
              key={side}
              type="button"
              aria-pressed={on}
              disabled={on && off.length === sides.length - 1}
              onClick={() => onCommit(next.length > 0 ? next : null)}
              className="h-10 rounded-md border border-rule px-2.5 text-muted line-through aria-pressed:border-ink aria-pressed:text-ink aria-pressed:no-underline"
            >
              {text}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
