import { useMemo } from "react";
import { useDocument } from "../bench/benchStores";
import { useAsked, useLast } from "../bench/useAsked";
import { airInput, useLayUp } from "./layUpStore";

/** What the air does with what this reader has. */
export function useAir(on: boolean) {
  const id = useDocument((s) => s.id);
  const lay = useLayUp();
  const input = useMemo(() => airInput(lay), [lay]);
  const asked = useAsked("blowOut", on ? input : null);
  const air = useLast(id, asked.data);
  return { air: on ? air : null, stale: !asked.data, error: asked.error, outletId: lay.outletId };
}
