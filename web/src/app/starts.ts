import { useQuery } from "@tanstack/react-query";
import { api, data } from "../api/client";

/** What a new rig can begin with: bodies, starters, build-ups. Once a visit. */
export const useStarts = () =>
  useQuery({
    queryKey: ["starts"],
    queryFn: async () => data(await api.GET("/api/starts")),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
