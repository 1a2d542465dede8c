import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got } from "../api/client";
import { useHold } from "./useHold";

/** Reports red flags at once, whatever else is still to be asked. */
export function useReport(episodeId: string) {
  const queries = useQueryClient();
  const hold = useHold();
  const { visitId = "" } = useParams();
  return useMutation({
    mutationFn: (dangerSigns: string[]) =>
      hold(
        () =>
          got(
            api.POST("/api/episodes/{id}/danger-reports", {
              params: { path: { id: episodeId } },
              body: { dangerSigns },
            }),
          ),
        { kind: "red-flags", episodeId, visitId, dangerSigns },
      ),
    onSuccess: (stored) => (stored ? queries.invalidateQueries() : undefined),
  });
}
