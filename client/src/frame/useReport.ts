import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";

/** Reports red flags at once, whatever else is still to be asked. */
export function useReport(episodeId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (dangerSigns: string[]) =>
      got(
        api.POST("/api/episodes/{id}/danger-reports", {
          params: { path: { id: episodeId } },
          body: { dangerSigns },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}
