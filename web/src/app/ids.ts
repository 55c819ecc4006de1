/** A random id; also where a page is not on this machine, and the browser has no shorter way. */
export function uuid(): string {
  if (typeof crypto.randomUUID === "function") return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}

/** A new id that begins with `stem`. */
export const newId = (stem: string) => `${stem}-${uuid().slice(0, 8)}`;
