import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import { useOutbox } from "../capture/OutboxContext";
import { leave } from "./leaving";

/** Signs out; whatever is on screen gives way to the sign-in at the same address. What is not sent yet stays on the tablet. */
export function useSignOut() {
  const queries = useQueryClient();
  const outbox = useOutbox();
  return useMutation({
    mutationFn: async () => {
      // Sent later it would stand under the name of whoever comes next.
      await outbox.flush();
      return got(api.POST("/api/sign-out"));
    },
    onSuccess: () => {
      leave();
      return queries.invalidateQueries({ queryKey: keys.start });
    },
  });
}
