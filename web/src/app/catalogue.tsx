import { useQuery } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useMemo } from "react";
import { api, data, type Schema } from "../api/client";

type Catalogue = Schema["CatalogueAnswer"];

/** Stock parts by id: what is a vessel, a joint, a drain, a landmark is said by the core. */
export type Stock = Map<string, Schema["StockPart"]>;

/** The numbers of the trade that screens judge by, until they have been fetched. */
const nothingKnown: Schema["TradeNumbers"] = {
  nearFreezingC: 0,
  warmC: 100,
  hotC: 100,
  holdC: 0,
  hottestOutletC: 100,
  dryRunL: 0,
  farthestM: Number.POSITIVE_INFINITY,
};

/** What the core says once a visit: its catalogue, and how quantities are printed. */
interface Trade {
  stock: Stock;
  bores: Map<string, number>;
  numbers: Schema["TradeNumbers"];
  /** Between what figures lie, by thing and field. */
  limits: Catalogue["limits"];
  /** The material that is usual for something; empty until it has been fetched. */
  usual(what: Schema["UsualFor"]): string;
  catalogue: Catalogue | undefined;
  rules: Schema["PrintRule"][] | undefined;
  /** One of them could not be fetched. */
  failed: boolean;
}

const tradeOf = (catalogue?: Catalogue, rules?: Schema["PrintRule"][], failed = false): Trade => ({
  stock: new Map(catalogue?.parts.map((p) => [p.id, p])),
  bores: new Map(catalogue?.pipes.map((p) => [p.id, p.innerDiameterM])),
  numbers: catalogue?.numbers ?? nothingKnown,
  limits: catalogue?.limits ?? {},
  usual: (what) => catalogue?.solids.find((s) => s.usual === what)?.id ?? "",
  catalogue,
  rules,
  failed,
});

const Context = createContext(tradeOf());
const staleTime = Number.POSITIVE_INFINITY;

export function TradeProvider({ children }: { children: ReactNode }) {
  const parts = useQuery({ queryKey: ["catalogue"], queryFn: async () => data(await api.GET("/api/catalogue")), staleTime });
  const print = useQuery({ queryKey: ["units"], queryFn: async () => data(await api.GET("/api/units")), staleTime });
  const failed = parts.isError || print.isError;
  const trade = useMemo(() => tradeOf(parts.data, print.data, failed), [parts.data, print.data, failed]);
  return <Context.Provider value={trade}>{children}</Context.Provider>;
}

export const useCatalogue = () => useContext(Context);
