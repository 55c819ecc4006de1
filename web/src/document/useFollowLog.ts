import { type QueryKey, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { listenLog } from "./changes";

/** Asks anew what is known by `key` when something is written in the logbook of a rig or on one of its walk-throughs, in whatever window or device. */
export function useFollowLog(rigId: string, key: QueryKey) {
  const client = useQueryClient();
  const name = JSON.stringify(key);
  useEffect(
    () => listenLog((log) => (!log || log.rigId === rigId) && void client.invalidateQueries({ queryKey: JSON.parse(name) })),
    [client, rigId, name],
  );
}
