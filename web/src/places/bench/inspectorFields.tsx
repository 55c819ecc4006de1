import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { changed } from "../../document/edits";
import type { Rig, Xyz } from "../../document/geometry";
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

/** Where a thing is, each axis to be typed. What the heights count from is said. */
export function PlaceFields({ rig, thing, of }: { rig: Rig; thing: Thing; of: string }) {
  const { document } = useStores();
  const actions = useActions();
  const at = placeOf(rig, thing);
  const mover = moverOf(rig, thing, actions.fixed);
  const set = (axis: keyof Xyz) => (value: number) => {
    // By the document as it is when the value is kept, not as it was when it was typed.
    const now = document.getState().rig as Rig;
    const from = placeOf(now, thing);
    const start = mover && placeOf(now, mover);
    if (!from || !mover || !start) return;
    actions.commit(`${nameOf(now, thing)} moved`, [putAt(now, mover, { ...start, [axis]: start[axis] + value - from[axis] })]);
  };
  return (
    <fieldset>
      <legend className="text-muted">{of}</legend>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <QuantityField label="From the rear" value={at?.xM} quantity="length" least={-5} most={25} disabled={!mover} onCommit={set("xM")} />
        <QuantityField label="From the kerb" value={at?.yM} quantity="length" least={-5} most={10} disabled={!mover} onCommit={set("yM")} />
        <QuantityField label="Above floor" value={at?.zM} quantity="length" least={-5} most={5} disabled={!mover} onCommit={set("zM")} />
      </div>
    </fieldset>
  );
}

/** A sleeve to choose: its material, and its thickness once it has one. */
export function SleeveFields({ label, none, sleeve, onCommit }: SleeveProps) {
  const { catalogue } = useCatalogue();
  return (
    <>
      <PickField
        label={label}
        value={sleeve ? (sleeve.thicknessM > 0 ? sleeve.material : "bare") : ""}
        options={[
          { value: "", text: none },
          ...(none === "none" ? [] : [{ value: "bare", text: "none" }]),
          ...(catalogue?.solids ?? []).map((s) => ({ value: s.id, text: s.name })),
        ]}
        onCommit={(v) =>
          onCommit(
            v === "bare"
              ? { material: sleeve?.material ?? "elastomer", thicknessM: 0 }
              : v
                ? { material: v, thicknessM: sleeve?.thicknessM || 0.013 }
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
            least={0.001}
            most={0.3}
            onCommit={(thicknessM) => onCommit({ ...sleeve, thicknessM })}
          />
          <QuantityField
            label="Gaps in it"
            value={sleeve.gapShare ?? 0}
            quantity="share"
            least={0}
            most={1}
            onCommit={(gapShare) => onCommit({ ...sleeve, gapShare: gapShare > 0 ? gapShare : null })}
          />
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
  onCommit(sleeve: Schema["Sleeve"] | null): void;
}
