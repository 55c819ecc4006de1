import { useMemo, useRef } from "react";
import type { Schema } from "../../api/client";
import { useDocument } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";
import { airInput, useLayUp } from "./layUpStore";

/** What the air does with what this reader has; what was there is drawn until what follows is known. */
export function useAir(on: boolean) {
  const id = useDocument((s) => s.id);
  const lay = useLayUp();
  const input = useMemo(() => airInput(lay), [lay]);
  const asked = useAsked("blowOut", on ? input : null);
  const last = useRef<{ id: string; air: Schema["BlowOutAnswer"] } | null>(null);
  if (asked.data) last.current = { id, air: asked.data };
  const air = asked.data ?? (last.current?.id === id ? last.current.air : null);
  return { air: on ? air : null, stale: !asked.data, error: asked.error, outletId: lay.outletId };
}
