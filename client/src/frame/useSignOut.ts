import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, isAway } from "../api/client";
import { leaveHere } from "../api/left";
import { keys } from "../api/queries";
import type { StartView } from "../api/types";
import { useOutbox } from "../capture/OutboxContext";
import { useTablet } from "../capture/TabletContext";
import { leave } from "./leaving";

/**
 * Signs out; whatever is on screen gives way to the sign-in at the same address, and what came along of today is gone from the
 * tablet. What is not sent yet stays on it, locked up, and is sent under the name of who tapped it.
 */
export function useSignOut() {
  const queries = useQueryClient();
  const outbox = useOutbox();
  const tablet = useTablet();
  return useMutation({
    mutationFn: async () => {
      // Kept before anything else: a page that is closed or loaded anew meanwhile, or a server that is away, takes nothing of it back.
      leaveHere(true);
      await Promise.all([outbox.flush(), tablet.held.flush()]);
      try {
        await got(api.POST("/api/sign-out"));
        leaveHere(false);
      } catch (problem) {
        if (!isAway(problem)) {
          leaveHere(false);
          throw problem;
        }
      }
      tablet.held.leave();
      await Promise.all([tablet.days.wipe(), tablet.keys.leave(), outbox.leave()]);
    },
    onSuccess: () => {
      leave();
      queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== keys.start[0] });
      queries.setQueryData<StartView>(
        keys.start,
        (start) => start && { ...start, signedInAs: null, roles: [] },
      );
      return queries.invalidateQueries({ queryKey: keys.start });
    },
  });
}
