import { useSyncExternalStore } from "react";
import { darkTokens, tokens } from "./tokens";

/** Light or dark: as the device says, or as somebody chose on it. */
export type Look = "device" | "light" | "dark";

const place = "palaestra-look";
const heard = new Set<() => void>();
const isDark = window.matchMedia("(prefers-color-scheme: dark)");
// Colours that are forced are the device's whole say: drawings follow its ground, whatever was chosen.
const isForced = window.matchMedia("(forced-colors: active)");
// Paper is light whatever the screen is.
const isPaper = window.matchMedia("print");

function subscribe(tell: () => void) {
  heard.add(tell);
  isDark.addEventListener("change", tell);
  isPaper.addEventListener("change", tell);
  isForced.addEventListener("change", tell);
  return () => {
    heard.delete(tell);
    isDark.removeEventListener("change", tell);
    isPaper.removeEventListener("change", tell);
    isForced.removeEventListener("change", tell);
  };
}

function chosen(): Look {
  try {
    const kept = localStorage.getItem(place);
    return kept === "light" || kept === "dark" ? kept : "device";
  } catch {
    // A browser that keeps nothing: as the device says.
    return "device";
  }
}

let now = chosen();

export function choose(look: Look) {
  now = look;
  try {
    if (look === "device") localStorage.removeItem(place);
    else localStorage.setItem(place, look);
  } catch {
    // It holds until the page is closed.
  }
  for (const tell of heard) tell();
}

export const useChosenLook = () => useSyncExternalStore(subscribe, () => now);

export function useTokens() {
  const dark = useSyncExternalStore(
    subscribe,
    () => !isPaper.matches && (now === "device" || isForced.matches ? isDark.matches : now === "dark"),
  );
  return dark ? darkTokens : tokens;
}
