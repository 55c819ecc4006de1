import { useCallback, useEffect } from "react";
import type { Schema } from "../../api/client";
import { applyEffect } from "../../document/effects";
import type { Rig } from "../../document/geometry";
import { usePreview, useStores } from "./benchStores";

/** Something that was tried, as it is looked at before it is done. */
interface Looked {
  id: string;
  effect?: Schema["Effect"] | null;
  band?: Schema["Band"] | null;
}

/** Shows what was tried in the drawings, dashed, until something else is shown or whatever offers it is gone. */
export function useLook() {
  const { document, preview } = useStores();
  const shown = usePreview();
  useEffect(() => () => preview.setState({ shown: null }), [preview]);
  const look = useCallback(
    (tried: Looked | null) => {
      const rig = document.getState().rig as Rig;
      preview.setState({
        shown: tried?.effect ? { id: tried.id, on: rig, rig: applyEffect(rig, tried.effect), band: tried.band ?? null } : null,
      });
    },
    [document, preview],
  );
  return { shown, look };
}
