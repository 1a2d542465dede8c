import { createContext, useContext } from "react";
import { api, got } from "../api/client";
import type { HeldAnswers } from "./heldAnswers";
import type { TabletDays } from "./tabletDay";
import type { TabletKeys } from "./tabletKeys";

/** What this tablet knows of itself: who opens it, what of today it has, and what was answered on it and not written yet. */
export interface Tablet {
  keys: TabletKeys;
  days: TabletDays;
  held: HeldAnswers;
}

export const TabletContext = createContext<Tablet | null>(null);

export function useTablet(): Tablet {
  const tablet = useContext(TabletContext);
  if (!tablet) throw new Error("No tablet in this tree.");
  return tablet;
}

/** The key of this tablet for whoever is signed in. */
export const askKey = (sealed: string | null) =>
  got(api.POST("/api/account/tablet-key", { body: { sealed } }));
