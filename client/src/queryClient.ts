import { MutationCache, QueryCache, QueryClient } from "@tanstack/react-query";
import { ProblemError } from "./api/client";
import { keys } from "./api/queries";
import { onVersions } from "./api/versions";

/** The server has answered, and will answer the same again. */
const refused = (error: unknown) => error instanceof ProblemError && error.status >= 400;

const againMs = 5000;

/** It was asked who is here, and did not answer. */
const away = () => queryClient.getQueryState(keys.start)?.status === "error";

export const queryClient: QueryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // Without the network too: what the browser keeps answers, and silence is told as such.
      networkMode: "always",
      // What was seen stays on screen while the server is away; a refusal is final, silence is not.
      retry: (count, error) => !refused(error) && count < (away() ? 0 : 2),
      // After that it is asked for again by itself, as the page says.
      refetchInterval: (query) =>
        query.state.status === "error" && !refused(query.state.error) ? againMs : false,
    },
    // As soon as it is pressed: what cannot be done without the server says so.
    mutations: { networkMode: "always" },
  },
  queryCache: new QueryCache({ onError: askWhoIsHere }),
  mutationCache: new MutationCache({ onError: askWhoIsHere }),
});

/** Signed out, or locked, from afar. */
function askWhoIsHere(error: unknown) {
  if (error instanceof ProblemError && (error.status === 401 || error.status === 423)) {
    void queryClient.invalidateQueries({ queryKey: keys.start });
  }
}

// Policies or words were changed, here or on another tablet.
onVersions((now, before) => {
  if (before.content !== null && now.content !== before.content) {
    void queryClient.invalidateQueries({ queryKey: keys.library });
  }
});
