import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { createStore, type StoreApi, useStore } from "zustand";
import type { Schema } from "../../api/client";
import { rigApi } from "../../api/rigs";
import { useCatalogue } from "../../app/catalogue";
import { type AnswersState, type AnswersStore, createAnswers, ofBench, type Wanted } from "../../document/answersStore";
import { listenChanges } from "../../document/changes";
import type { DocumentState, DocumentStore } from "../../document/documentState";
import { createDocument } from "../../document/documentStore";
import { drafts } from "../../document/drafts";
import { Drawn } from "../../ui/Drawn";
import { createRunDrawing, type RunDrawing, type RunDrawingStore } from "./runDrawing";
import { createSelection, type SelectionState, type SelectionStore } from "./selectionStore";
import { useView } from "./viewStore";

/** A fix that is looked at before it is done: what it is called, and where the point that it moves may lie. It belongs to the document that it was tried on. */
export interface Preview {
  id: string;
  on: Schema["Rig"];
  rig: Schema["Rig"];
  band: Schema["Band"] | null;
  /** Points that allow no more. */
  chain?: Schema["Point3"][];
}

interface Stores {
  document: DocumentStore;
  answers: AnswersStore;
  selection: SelectionStore;
  drawing: RunDrawingStore;
  preview: StoreApi<{ shown: Preview | null }>;
}

const Context = createContext<Stores | null>(null);

/** The stores of the rig on the bench: made when it is opened, gone when it is left. */
export function BenchStores({ id, wanted = ofBench, children }: { id: string; wanted?: Wanted; children: ReactNode }) {
  const [stores, setStores] = useState<Stores | null>(null);
  useEffect(() => {
    const document = createDocument(id, rigApi, drafts);
    const answers = createAnswers(document, rigApi, wanted);
    const selection = createSelection();
    const drawing = createRunDrawing();
    const preview = createStore<{ shown: Preview | null }>(() => ({ shown: null }));
    const stops = [
      listenChanges((change) => document.heard(change)),
      document.subscribe((now, before) => {
        if (now.rig && now.rig !== before.rig) selection.after(now.rig);
        if (now.rig !== preview.getState().shown?.on) preview.setState({ shown: null });
      }),
      // The first finding is in hand when the first answer comes, so that the eye is led to it.
      answers.subscribe((now, before) => {
        const first = !before.answers && now.answers?.advice?.findings.find((f) => f.runIds.length > 0);
        if (first && selection.getState().things.length === 0 && useView.getState().lens !== "water") selection.takeFinding(first);
      }),
      sendWhenLeft(document),
    ];
    setStores({ document, answers, selection, drawing, preview });
    void document.open();
    return () => {
      void document.flush();
      for (const stop of stops) stop();
      answers.close();
      document.close();
    };
  }, [id, wanted]);
  const ready = useReady(stores);
  return (
    stores && (
      <Context.Provider value={stores}>
        {ready ? children : <Drawn picture="loading" role="status" title="Loading the rig…" />}
      </Context.Provider>
    )
  );
}

/** The rig is drawn without its answers when they take longer than this. */
const TOGETHER_MS = 150;

/** The first drawing is the dearest: catalogue, rig and answers that come within a moment of each other are drawn once, not three times. */
function useReady(stores: Stores | null): boolean {
  const { catalogue, rules, failed } = useCatalogue();
  const [come, setCome] = useState(false);
  useEffect(() => {
    if (!stores) return;
    setCome(false);
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      const { rig, missing } = stores.document.getState();
      const { answers, problem } = stores.answers.getState();
      if (missing || (rig && (answers || problem))) setCome(true);
      else if (rig) timer ??= setTimeout(() => setCome(true), TOGETHER_MS);
    };
    look();
    const stops = [stores.document.subscribe(look), stores.answers.subscribe(look)];
    return () => {
      clearTimeout(timer);
      for (const stop of stops) stop();
    };
  }, [stores]);
  return come && (failed || (!!catalogue && !!rules));
}

/** A lid closed in mid-edit: the edits are on this device already; this asks the server to have them too. */
function sendWhenLeft(document: DocumentStore) {
  const leave = () => {
    const ask = document.leave();
    if (!ask) return;
    const headers = { "content-type": "application/json" };
    void fetch(`/api/rigs/${document.getState().id}/edits`, { method: "POST", keepalive: true, headers, body: JSON.stringify(ask) }).catch(
      () => undefined,
    );
  };
  window.addEventListener("pagehide", leave);
  return () => window.removeEventListener("pagehide", leave);
}

export function useStores(): Stores {
  const stores = useContext(Context);
  if (!stores) throw new Error("There is no rig on the bench.");
  return stores;
}

export const useDocument = <T,>(pick: (s: DocumentState) => T): T => useStore(useStores().document, pick);
export const useAnswers = <T,>(pick: (s: AnswersState) => T): T => useStore(useStores().answers, pick);
export const useSelection = <T,>(pick: (s: SelectionState) => T): T => useStore(useStores().selection, pick);
export const useDrawing = <T,>(pick: (d: RunDrawing | null) => T): T => useStore(useStores().drawing, (s) => pick(s.drawing));
export const usePreview = () => useStore(useStores().preview, (s) => s.shown);
