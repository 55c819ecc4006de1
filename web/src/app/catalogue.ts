import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, data, type Schema } from "../api/client";

type Catalogue = Schema["CatalogueAnswer"];

/** Stock parts by id: what is a vessel, a joint, a drain, a landmark is said by the core. */
export type Stock = Map<string, Schema["StockPart"]>;

/** The numbers of the trade that screens judge by, until they have been fetched. */
const nothingKnown: Schema["TradeNumbers"] = { nearFreezingC: 0, warmC: 100, hotC: 100, holdC: 0, hottestOutletC: 100, dryRunL: 0 };

/** The catalogue, once a visit. */
export function useCatalogue(): {
  stock: Stock;
  bores: Map<string, number>;
  numbers: Schema["TradeNumbers"];
  catalogue: Catalogue | undefined;
} {
  const catalogue = useQuery({
    queryKey: ["catalogue"],
    queryFn: async () => data(await api.GET("/api/catalogue")),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
  return useMemo(
    () => ({
      stock: new Map(catalogue?.parts.map((p) => [p.id, p])),
      bores: new Map(catalogue?.pipes.map((p) => [p.id, p.innerDiameterM])),
      numbers: catalogue?.numbers ?? nothingKnown,
      catalogue,
    }),
    [catalogue],
  );
}
