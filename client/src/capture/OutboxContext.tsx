import { createContext, useContext } from "react";
import type { Outbox } from "./outbox";

export const OutboxContext = createContext<Outbox | null>(null);

export function useOutbox(): Outbox {
  const outbox = useContext(OutboxContext);
  if (!outbox) throw new Error("The outbox is not open.");
  return outbox;
}
