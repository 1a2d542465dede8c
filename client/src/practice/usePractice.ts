import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { keys } from "../api/queries";

/** The room as it is now: what was answered meanwhile, here or on another tablet, counts. */
export const usePractice = () =>
  useQuery({ queryKey: keys.practice, queryFn: () => got(api.GET("/api/practice")), staleTime: 0 });
