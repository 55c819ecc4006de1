import { type MouseEvent, type PointerEvent, useEffect, useMemo } from "react";
import type { Schema } from "../../api/client";
import { applyEffect } from "../../document/effects";
import type { Rig } from "../../document/geometry";
import { useStores } from "./benchStores";

/** Something that was tried, as it is looked at before it is done. */
interface Looked {
  id: string;
  effect?: Schema["Effect"] | null;
  band?: Schema["Band"] | null;
}

/** Shows what was tried in the drawings, dashed, until something else is shown or whatever offers it is gone. */
export function useLook() {
  const { document, preview } = useStores();
  useEffect(() => () => preview.setState({ shown: null }), [preview]);
  return useMemo(() => {
    const look = (tried: Looked | null) => {
      const rig = document.getState().rig as Rig;
      preview.setState({
        shown: tried?.effect ? { id: tried.id, on: rig, rig: applyEffect(rig, tried.effect), band: tried.band ?? null } : null,
      });
    };
    /**
     * For what offers it: shown under the mouse, and while something in it has the focus; by a finger from one tap to the next,
     * but for those on what does it.
     */
    const shows = (tried: Looked) => ({
      onPointerEnter: (e: PointerEvent) => e.pointerType === "mouse" && look(tried),
      onPointerLeave: (e: PointerEvent) => e.pointerType === "mouse" && look(null),
      onClick: (e: MouseEvent) => {
        const finger = (e.nativeEvent as globalThis.PointerEvent).pointerType === "touch";
        if (finger && !(e.target as Element).closest("button")) look(preview.getState().shown?.id === tried.id ? null : tried);
      },
      onFocus: () => look(tried),
      onBlur: () => look(null),
    });
    return { look, shows };
  }, [document, preview]);
}
