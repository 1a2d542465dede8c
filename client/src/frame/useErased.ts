import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, got } from "../api/client";
import { onNews } from "../api/live";
import { useOutbox } from "../capture/OutboxContext";

/** What is asked for of clients, by the first word of its key. */
const ofClients = new Set([
  "day",
  "client",
  "clients",
  "episode",
  "visit",
  "trace",
  "seen-by",
  "audit",
  "overrides",
]);

/** What a tablet still has of clients who were erased goes: at its start, and when it is told that anything may have changed. */
export function useErased() {
  const outbox = useOutbox();
  const queries = useQueryClient();
  useEffect(() => {
    let known: number | null = null;
    const forget = async () => {
      const visits = await got(api.GET("/api/erased")).catch(() => null);
      if (!visits) return;
      outbox.forget(new Set(visits));
      // What was shown of them is asked for again, and is not there.
      if (known !== null && visits.length > known)
        void queries.resetQueries({ predicate: ({ queryKey }) => ofClients.has(String(queryKey[0])) });
      known = visits.length;
    };
    void forget();
    return onNews((visitId) => {
      if (visitId === null) void forget();
    });
  }, [outbox, queries]);
}
