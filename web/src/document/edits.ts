import type { Schema } from "../api/client";

/** Fields of one thing of the document, named by its path, set to new values. */
export const changed = (thing: string, values: object) => ({ kind: "change", thing, values }) as Schema["Edit"];
