import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../../api/client";
import { rigApi } from "../../api/rigs";
import { pendingOf } from "../../document/documentStore";
import { useRested } from "../../ui/useRested";
import { useAnswers, useDocument } from "./benchStores";

const RESTS_MS = 500;

/** An answer about the document as it is drawn, asked for when it is shown; a new edit calls the question off. */
export function useAsked<N extends keyof Schema["AnswersAnswer"]["answers"]>(name: N, about?: string) {
  const document = useDocument((s) => s);
  const conditions = useAnswers((s) => s.conditions);
  const edits = pendingOf(document);
  const base = { id: document.id, base: document.revision, edits };
  // A hand that nudges on is answered first: what would mend it is asked once it rests.
  const now = JSON.stringify([base, conditions]);
  const rests = useRested(now, RESTS_MS) === now;
  return useQuery({
    queryKey: [name, now, about],
    enabled: document.inHand.length === 0 && rests,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async ({ signal }) =>
      (await rigApi.answers({ ...base, wanted: [name], ...(about !== undefined && { about }), ...(conditions && { conditions }) }, signal))
        .answers[name] ?? null,
  });
}
