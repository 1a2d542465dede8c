import { useEffect } from "react";

/** What the tabs of one tablet know together, also over a reload without the server: whether it is locked, and when it was touched last. */
const lockedAt = "palaestra-locked";
const touchedAt = "palaestra-touched";

/** Touches are written down at most so often. */
const writeMs = 2000;

export const lockedHere = () => localStorage.getItem(lockedAt) !== null;

const locks = new Set<(locked: boolean) => void>();

export function lockHere(locked: boolean) {
  if (locked) localStorage.setItem(lockedAt, "1");
  else localStorage.removeItem(lockedAt);
  locks.forEach((changed) => changed(locked));
}

/** Calls when this tab or another one locks or opens the tablet; returns what ends that. */
export function onLock(changed: (locked: boolean) => void) {
  const heard = (e: StorageEvent) => {
    if (e.key === lockedAt) changed(e.newValue !== null);
  };
  locks.add(changed);
  window.addEventListener("storage", heard);
  return () => {
    locks.delete(changed);
    window.removeEventListener("storage", heard);
  };
}

/** Milliseconds since the epoch; 0 where nobody touched it yet. */
export const lastTouched = () => Number(localStorage.getItem(touchedAt) ?? 0);

export function touchedNow() {
  const now = Date.now();
  if (now - lastTouched() >= writeMs || now < lastTouched()) localStorage.setItem(touchedAt, `${now}`);
}

/** Whoever is at a page where they sign in is there: what was left alone before is not counted against them. */
export function useTouched() {
  useEffect(() => {
    touchedNow();
    const touches = ["pointerdown", "keydown"] as const;
    for (const touch of touches) window.addEventListener(touch, touchedNow, true);
    return () => {
      for (const touch of touches) window.removeEventListener(touch, touchedNow, true);
    };
  }, []);
}

let pin: string | null = null;

/** The tablet was opened without the server: the PIN is told to it when it is back, and kept nowhere until then. */
export function openedWith(typed: string) {
  pin = typed;
}

/** Once. */
export function takeOpenedWith() {
  const typed = pin;
  pin = null;
  return typed;
}
