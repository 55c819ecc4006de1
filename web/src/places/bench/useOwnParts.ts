import { useQuery } from "@tanstack/react-query";
import { api, data } from "../../api/client";

/** Parts that builders keep as their own, from every rig on the shelf. */
export const useOwnParts = () =>
  useQuery({ queryKey: ["own-parts"], queryFn: async ({ signal }) => data(await api.GET("/api/own-parts", { signal })) }).data ?? [];
