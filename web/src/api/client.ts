import createClient from "openapi-fetch";
import { pathWords } from "../app/pathWords";
import type { components, paths } from "./schema";

/** The records of the core, as the server describes them. */
export type Schema = components["schemas"];

/** What went wrong, in the words of the server: a title, and reasons by field where there are any. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string | undefined,
    readonly fields: Record<string, string[]>,
    readonly extra: Record<string, unknown>,
  ) {
    const told = Object.entries(fields).map(([path, reasons]) => `${pathWords(path)}: ${reasons.join("; ")}`);
    super(told.length > 0 ? told.join("\n") : (detail ?? title));
  }
}

/** The server cannot be reached. */
export const OFFLINE = 0;

/** The API on this page's own address; every failure is thrown as a {@link Problem}. */
export const api = createClient<paths>({ baseUrl: location.origin, fetch: (request) => fetch(request) });
api.use({
  async onResponse({ response }) {
    if (response.ok) return response;
    throw await problemOf(response);
  },
  onError: () => new Problem(OFFLINE, "The program isn't answering.", undefined, {}, {}),
});

/** Reads a refused answer. */
export async function problemOf(response: Response): Promise<Problem> {
  const body = await response.json().catch(() => ({}));
  return new Problem(response.status, body.title ?? `Answer ${response.status}`, body.detail, body.errors ?? {}, body);
}

/** Unwraps an answer that middleware has already checked. */
export function data<T>(answer: { data?: T }): T {
  return answer.data as T;
}

/** Sends a file as it is; a failure is thrown as a {@link Problem}. */
export async function sendFile<T>(path: string, type: string, file: File): Promise<T> {
  const answer = await fetch(path, { method: "POST", headers: { "content-type": type }, body: file }).catch(() => {
    throw new Problem(OFFLINE, "The program isn't answering.", undefined, {}, {});
  });
  if (!answer.ok) throw await problemOf(answer);
  return answer.json();
}
