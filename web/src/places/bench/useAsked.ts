import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import type { Schema } from "../../api/client";
import { rigApi } from "../../api/rigs";
import { pendingOf } from "../../document/documentState";
import { runJob } from "../../document/jobs";
import { useRested } from "../../ui/useRested";
import { useAnswers, useDocument } from "./benchStores";

const RESTS_MS = 500;

type Answers = Schema["WantedAnswers"];
type Inputs = Schema["StudyInputs"];
type InputOf<N> = N extends keyof Inputs ? NonNullable<Inputs[N]> : never;
type Ask = Schema["AnswersRequest"];

/**
 * An answer about the document as it is drawn, asked for when it is shown; a new edit calls the question off. Null instead of an
 * input: not to be asked yet. `conditions`: another night and parking than the one that is chosen.
 */
export function useAsked<N extends keyof Answers>(name: N, input?: InputOf<N> | null, conditions?: Ask["conditions"]) {
  return useQuestion(name, input, rigApi.answers, conditions);
}

/** The same for what takes long: a job, whose share that is done is told, and which is stopped when it is called off. */
export function useJob<N extends keyof Answers>(name: N, input?: InputOf<N> | null) {
  const [share, setShare] = useState(0);
  const asked = useQuestion(name, input, (ask, signal) => {
    setShare(0);
    return runJob(ask, signal, setShare);
  });
  return { ...asked, share };
}

/** An answer, or the last one about the same rig until it is known: what was there is drawn meanwhile. */
export function useLast<T>(rigId: string, data: T | null | undefined): T | null {
  const last = useRef<{ rigId: string; data: T } | null>(null);
  if (data != null) last.current = { rigId, data };
  return data ?? (last.current?.rigId === rigId ? last.current.data : null);
}

function useQuestion<N extends keyof Answers>(
  name: N,
  input: InputOf<N> | null | undefined,
  answer: (ask: Ask, signal: AbortSignal) => Promise<Schema["AnswersAnswer"]>,
  own?: Ask["conditions"],
) {
  const document = useDocument((s) => s);
  const chosen = useAnswers((s) => s.conditions);
  const conditions = own ?? chosen;
  const edits = pendingOf(document);
  const base = { id: document.id, base: document.revision, edits };
  // A hand that nudges on is answered first: what would mend it is asked once it rests.
  const now = JSON.stringify([base, conditions]);
  const rests = useRested(now, RESTS_MS) === now;
  return useQuery({
    queryKey: [name, now, input],
    enabled: document.previewEdits.length === 0 && rests && input !== null,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async ({ signal }) => {
      const ask: Ask = {
        ...base,
        effect: false,
        wanted: [name],
        ...(input && { inputs: { [name]: input } }),
        ...(conditions && { conditions }),
      };
      return ((await answer(ask, signal)).answers[name] as NonNullable<Answers[N]> | undefined) ?? null;
    },
  });
}
