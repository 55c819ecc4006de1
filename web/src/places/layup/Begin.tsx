import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation } from "wouter";
import { api, data, type Problem, type Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import type { Rig } from "../../document/geometry";
import { useFollowLog } from "../../document/useFollowLog";
import { whenWords } from "../../drawing/left";
import { Button } from "../../ui/controls";
import { fieldClass, QuantityField } from "../../ui/QuantityField";
import { useTyped } from "../../ui/useTyped";
import { useAnswers, useStores } from "../bench/benchStores";

interface Props {
  rig: Rig;
  input: Schema["ProcedureInput"];
  made: Schema["ProcedureAnswer"];
}

/** Begins a walk-through, or goes on with one that was broken off, on whatever device. */
export function Begin({ rig, input, made }: Props) {
  const { document } = useStores();
  const conditions = useAnswers((s) => s.conditions);
  const client = useQueryClient();
  const [, go] = useLocation();
  const { who, setWho } = useSettings();
  const { value, change, whole } = useTyped<{ outdoorC: number | null }>({ outdoorC: null });
  const [problem, setProblem] = useState<string | null>(null);
  const [beginning, setBeginning] = useState(false);
  const walks = useQuery({
    queryKey: ["walks", rig.id],
    queryFn: async () => data(await api.GET("/api/rigs/{id}/walks", { params: { path: { id: rig.id } } })),
    refetchOnMount: "always",
  });
  useFollowLog(rig.id, ["walks", rig.id]);
  const open = walks.data?.filter((w) => w.endedAt == null) ?? [];
  async function begin() {
    setProblem(null);
    setBeginning(true);
    try {
      const { outdoorC } = await whole();
      // The steps are made from what is saved.
      if (!(await document.flush())) throw new Error("Save the rig first.");
      const walk = data(
        await api.POST("/api/rigs/{id}/walks", {
          params: { path: { id: rig.id } },
          body: {
            id: newId("walk"),
            procedure: input,
            ...(conditions && { conditions }),
            ...(who && { who }),
            ...(outdoorC !== null && { outdoorC }),
          },
        }),
      );
      client.setQueryData(["walk", walk.id], walk);
      go(`/rigs/${rig.id}/walk/${walk.id}`);
    } catch (caught) {
      setProblem((caught as Problem).message);
      setBeginning(false);
    }
  }
  return (
    <div className="mt-2 border-t border-rule pt-2">
      {open.map((w) => (
        <Link
          key={w.id}
          href={`/rigs/${rig.id}/walk/${w.id}`}
          className="mb-2 flex min-h-16 flex-col justify-center rounded-md border-2 border-ink px-3 py-1"
        >
          <strong className="font-semibold">Go on: {w.name}</strong>
          <span className="text-muted">
            {w.done + w.skipped} of {w.of} steps behind you, begun {whenWords(w.startedAt)}
            {w.who && ` by ${w.who}`}
          </span>
        </Link>
      ))}
      <div className="grid grid-cols-2 gap-2">
        <label className="flex min-w-0 flex-col">
          <span className="text-muted">Your name, for the logbook</span>
          <input className={`${fieldClass} border-rule`} maxLength={60} value={who} onChange={(e) => setWho(e.target.value)} />
        </label>
        <QuantityField
          label="Outdoors now"
          value={value.outdoorC}
          quantity="temperature"
          limit="log.outdoorC"
          onCommit={(outdoorC) => change({ outdoorC })}
          placeholder="not known"
        />
      </div>
      <Button primary className="mt-2 h-16 w-full text-[17px]" data-begin disabled={beginning} onClick={begin}>
        Begin: {made.name}
      </Button>
      {problem && (
        <p role="alert" className="mt-1">
          It did not begin: {problem}
        </p>
      )}
    </div>
  );
}
