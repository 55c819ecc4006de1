import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, data, OFFLINE, type Problem, type Schema } from "../../api/client";
import { within } from "../../api/rigs";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import { useFollowLog } from "../../document/useFollowLog";
import { type Act, keepWaiting, waitingOf, withWaiting } from "./walkQueue";

const AGAIN_MS = 3000;

/** A walk-through, and how this device says what happens on it: kept until it is sent, and sent once. */
export function useWalkThrough(rigId: string, walkId: string) {
  const client = useQueryClient();
  const key = useMemo(() => ["walk", walkId], [walkId]);
  const asked = useQuery({
    queryKey: key,
    queryFn: async ({ signal }) => data(await api.GET("/api/walks/{id}", { params: { path: { id: walkId } }, signal: within(signal) })),
    retry: (count, problem) => (problem as unknown as Problem).status === OFFLINE || count < 1,
  });
  const [waiting, setWaiting] = useState<Act[]>(() => waitingOf(walkId));
  const [told, setTold] = useState<string | null>(null);
  const [away, setAway] = useState(false);
  const sending = useRef(false);
  const queue = useRef(waiting);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const put = useCallback(
    (acts: Act[]) => {
      queue.current = acts;
      keepWaiting(walkId, acts);
      setWaiting(acts);
    },
    [walkId],
  );

  // One after the other: what is refused is dropped by itself.
  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    clearTimeout(timer.current);
    try {
      for (let act = queue.current[0]; act; act = queue.current[0]) {
        const answer = data(
          await api.POST("/api/walks/{id}/acts", { params: { path: { id: walkId } }, body: { acts: [act] }, signal: within() }),
        );
        setAway(false);
        client.setQueryData(key, answer.walk);
        put(queue.current.slice(1));
        const result = answer.results[0];
        if (result && !result.counts) setTold(firstWords(result.first));
      }
    } catch (caught) {
      const problem = caught as Problem;
      if (problem.status >= 400 && problem.status < 500 && problem.status !== 401) {
        setTold(problem.message);
        put(queue.current.slice(1));
        timer.current = setTimeout(() => void send(), 0);
      } else {
        // Sent away: the code is asked for again, and what waits is sent after it.
        if (problem.status === 401) window.location.reload();
        setAway(true);
        timer.current = setTimeout(() => void send(), AGAIN_MS);
      }
    } finally {
      sending.current = false;
    }
  }, [walkId, client, key, put]);

  useEffect(() => {
    const back = () => void send();
    window.addEventListener("online", back);
    back();
    return () => {
      window.removeEventListener("online", back);
      clearTimeout(timer.current);
    };
  }, [send]);
  useFollowLog(rigId, key);

  const who = useSettings((s) => s.who);
  const say = (kind: Act["kind"], stepId: string | null, more: Partial<Act> = {}) => {
    const act = { id: newId("act"), kind, at: new Date().toISOString(), ...(stepId && { stepId }), ...(who && { who }), ...more } as Act;
    setTold(null);
    put([...queue.current, act]);
    void send();
  };
  const view = useMemo(() => (asked.data ? withWaiting(asked.data, waiting) : null), [asked.data, waiting]);
  return { view, problem: asked.error as Problem | null, waiting: waiting.length, away, told, say };
}

function firstWords(first: Schema["WalkAct"] | null | undefined): string {
  if (!first) return "This was said already.";
  const when = new Date(first.at).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
  const what = { done: "Done", skipped: "Skipped", reopened: "Opened again", timer: "Timer started", measured: "Measured", ended: "Ended" }[
    first.kind
  ];
  return `${what} already${first.who ? ` by ${first.who}` : " on another device"} at ${when}. That stands.`;
}
