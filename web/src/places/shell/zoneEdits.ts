import type { Schema } from "../../api/client";
import { changed } from "../../document/edits";

type Edit = Schema["Edit"];

/** Every zone gets the faces that its box has. */
export const drawFaces = { kind: "faces", zoneIds: [] } as unknown as Edit;

/** A zone gets another box. */
export const boxOf = (zone: string, box: Schema["Box"]) => changed(`shell/zones/${zone}`, { box });
