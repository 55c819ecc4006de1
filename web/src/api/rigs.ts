import { api, data, type Schema } from "./client";

type Edit = Schema["Edit"];

/** Nothing is waited for longer: one request that hangs stops no other. */
const LONGEST_MS = 15_000;
export const within = (signal?: AbortSignal) => AbortSignal.any([AbortSignal.timeout(LONGEST_MS), ...(signal ? [signal] : [])]);

/** What the stores ask of the server; tests put a small one in its place. */
export interface RigApi {
  open(id: string): Promise<Schema["OpenRig"]>;
  save(id: string, ask: { base: number; edits: Edit[]; key: string }): Promise<Schema["SavedEdits"]>;
  since(id: string, revision: number): Promise<Schema["Since"]>;
  copy(id: string, revision: number): Promise<Schema["OpenRig"]>;
  answers(ask: Schema["AnswersRequest"], signal: AbortSignal): Promise<Schema["AnswersAnswer"]>;
}

export const rigApi: RigApi = {
  open: async (id) => data(await api.GET("/api/rigs/{id}", { params: { path: { id } }, signal: within() })),
  save: async (id, body) => data(await api.POST("/api/rigs/{id}/edits", { params: { path: { id } }, body, signal: within() })),
  since: async (id, revision) =>
    data(await api.GET("/api/rigs/{id}/since/{revision}", { params: { path: { id, revision } }, signal: within() })),
  copy: async (id, number) =>
    data(await api.POST("/api/rigs/{id}/revisions/{number}/copy", { params: { path: { id, number } }, body: {}, signal: within() })),
  answers: async (body, signal) => data(await api.POST("/api/answers", { body, signal: within(signal) })),
};
