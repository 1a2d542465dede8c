import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { isAway } from "../api/client";
import { keys, useStart } from "../api/queries";
import type { HeldAnswer } from "../capture/heldAnswers";
import { useOutbox } from "../capture/OutboxContext";
import { useTablet } from "../capture/TabletContext";
import { layOver } from "./layOver";

/** What waits to be written, for whoever is here. */
export function useHeldStatus() {
  const { held } = useTablet();
  return useSyncExternalStore(held.subscribe, held.getStatus);
}

type Told<T extends HeldAnswer = HeldAnswer> = T extends HeldAnswer ? Omit<T, "id" | "name" | "at"> : never;

/**
 * Where the server is away an answer is held on the tablet, and the visit goes on as if it had been written.
 * @returns a way to write: what the server answered, or null where it is held
 */
export function useHold() {
  const { held } = useTablet();
  const queries = useQueryClient();
  const name = useStart().data?.signedInAs ?? "";
  return async <T>(write: () => Promise<T>, told: Told): Promise<T | null> => {
    try {
      return await write();
    } catch (problem) {
      if (!isAway(problem) || !mayHold(queries, told)) throw problem;
      const at = new Date().toISOString();
      for (const one of [...flagsOf(told), told]) {
        const answer: HeldAnswer = { ...one, id: idOf(one), name, at };
        await held.hold(answer).catch(() => {
          // Said as before: the server is away.
          throw problem;
        });
        layOver(queries, answer);
      }
      return null;
    }
  };
}

/** A red flag stands for itself, whatever becomes of the answers it came with: answered again, or refused. */
const flagsOf = (told: Told): Told[] =>
  told.kind === "intake" && told.form.dangerSigns.length > 0
    ? [
        {
          kind: "red-flags",
          episodeId: told.episodeId,
          visitId: told.visitId,
          dangerSigns: told.form.dangerSigns,
        },
      ]
    : [];

/** One red flag does not take the place of another. */
const idOf = (told: Told) =>
  [told.kind, told.visitId, ...(told.kind === "red-flags" ? told.dangerSigns : [])].join(" ");

/** A check-in that nothing came along for, to be weighed by, is not taken for one. */
const mayHold = (queries: QueryClient, told: Told) =>
  told.kind !== "check-in" || Boolean(queries.getQueryData(keys.unasked(told.visitId)));

/** What is held stays in sight while it waits, whatever the server still tells. */
export function useLaidOver() {
  const { held } = useTablet();
  const outbox = useOutbox();
  const queries = useQueryClient();
  useEffect(() => {
    const lay = () => held.waiting().forEach((answer) => layOver(queries, answer));
    lay();
    const ends = [
      held.subscribe(lay),
      queries.getQueryCache().subscribe((event) => {
        if (event.type !== "updated" || event.action.type !== "success" || event.action.manual) return;
        lay();
        // The server is back: nothing waits any longer.
        if (event.query.queryKey[0] === keys.start[0]) void Promise.all([held.flush(), outbox.flush()]);
      }),
    ];
    return () => ends.forEach((end) => end());
  }, [held, outbox, queries]);
}
