import type { ReactNode } from "react";
import type { Wanted } from "../../document/answersStore";
import type { Rig } from "../../document/geometry";
import type { Place } from "./BenchHeader";
import { BenchStores, useDocument } from "./benchStores";
import { RigPage } from "./RigPage";

interface Props {
  id: string;
  place: Place;
  wanted: Wanted;
  alone?: boolean;
  children(rig: Rig): ReactNode;
}

/** A sheet about a rig beside the bench: the same document, saved and undone the same way. */
export function RigPlace({ id, place, wanted, alone = false, children }: Props) {
  return (
    <BenchStores key={id} id={id} wanted={wanted}>
      <RigPage id={id} place={place} alone={alone}>
        <Sheet>{children}</Sheet>
      </RigPage>
    </BenchStores>
  );
}

function Sheet({ children }: Pick<Props, "children">) {
  return children(useDocument((s) => s.rig) as Rig);
}
