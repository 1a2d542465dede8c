import { QueryCache, QueryClient } from "@tanstack/react-query";
import { ProblemError } from "./api/client";
import { keys } from "./api/queries";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // What was seen stays on screen while the server is away; a refusal is final, silence is not.
      retry: (count, error) => (error instanceof ProblemError && error.status >= 400 ? false : count < 2),
    },
  },
  queryCache: new QueryCache({
    onError: (error) => {
      if (error instanceof ProblemError && error.status === 401) {
        void queryClient.invalidateQueries({ queryKey: keys.start });
      }
    },
  }),
});
