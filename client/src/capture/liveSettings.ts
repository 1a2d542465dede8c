import { useSyncExternalStore } from "react";

/** How this tablet behaves in live screens; kept on the tablet, since it is about hands and rooms. */
export interface LiveSettings {
  thumb: "left" | "right";
  sound: boolean;
  vibration: boolean;
  /** Seconds from the tap to the start of a hold, counted in; 0: at once. */
  delay: number;
  /** A tick where out, hold and back change. */
  tempo: boolean;
  /** The instrument whose trace is shown; null: none. */
  instrument: string | null;
  /** Letters and digits act by themselves in live screens; without, only what is focused does. */
  keys: boolean;
  /** In a screen a hold that lasted counts, and a clean trial ends, by itself. */
  byItself: boolean;
  /** A tone when the instrument says that control was lost. */
  lossTone: boolean;
}

const standard: LiveSettings = {
  thumb: "left",
  sound: true,
  vibration: true,
  delay: 0,
  tempo: true,
  instrument: null,
  keys: true,
  byItself: true,
  lossTone: false,
};
const key = "palaestra.live";
const listeners = new Set<() => void>();
let settings = read();

function read(): LiveSettings {
  try {
    return { ...standard, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<LiveSettings>) };
  } catch {
    return standard;
  }
}

export function changeSettings(change: Partial<LiveSettings>) {
  settings = { ...settings, ...change };
  try {
    localStorage.setItem(key, JSON.stringify(settings));
  } catch {
    // A browser that keeps nothing still uses them until it is closed.
  }
  listeners.forEach((listener) => listener());
}

export const liveSettings = () => settings;

export const useLiveSettings = () =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => settings,
  );
