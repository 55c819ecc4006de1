import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, data, type Problem, type Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import { useFollowLog } from "../../document/useFollowLog";

export type Entry = Schema["LogEntry"];

/** The logbook of a rig; it follows what other windows and devices write. */
export function useLog(rigId: string, place: Schema["WeatherPlace"] | null) {
  const client = useQueryClient();
  const log = useQuery({
    queryKey: ["log", rigId, place],
    queryFn: async () => data(await api.GET("/api/rigs/{id}/log", { params: { path: { id: rigId }, ...(place && { query: { place } }) } })),
    refetchOnMount: "always",
    placeholderData: (before) => before,
  });
  const anew = () => client.invalidateQueries({ queryKey: ["log", rigId] });
  useFollowLog(rigId, ["log", rigId]);
  const who = useSettings((s) => s.who);
  const write = useMutation<unknown, Problem, Omit<Entry, "id" | "revision">>({
    mutationFn: async (entry) => {
      const body = { id: newId("entry"), revision: 0, ...(who && { who }), ...entry };
      await api.POST("/api/rigs/{id}/log", { params: { path: { id: rigId } }, body });
    },
    onSuccess: anew,
  });
  const remind = useMutation<unknown, Problem, Schema["Reminder"]>({
    mutationFn: async (body) => {
      await api.PUT("/api/rigs/{id}/reminders", { params: { path: { id: rigId } }, body });
    },
    onSuccess: anew,
  });
  return { log: log.data ?? null, problem: log.error as Problem | null, write, remind, anew };
}
