import { useLayoutEffect } from "react";

/** The key without its shift: "a" for "A", "1" for what a layout puts above the 1. */
const plainKey = (e: KeyboardEvent) =>
  e.shiftKey && e.code.startsWith("Digit") ? e.code.slice(5) : e.key.toLowerCase();

/**
 * Keys of a live screen. They work wherever the focus is, so that the space bar always counts a rep and never presses
 * a fault by accident; Enter still presses what is focused. Fields and dialogs keep their own keys; a
 * locked tablet has none.
 */
export function useLiveKeys(keys: Map<string, () => void>, enabled: boolean) {
  // With the picture, not after it: what is shown can be counted.
  useLayoutEffect(() => {
    if (!enabled) return;
    const pressed = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      if (document.querySelector("[data-lock]")) return;
      if (target.closest("input, textarea, select, [role=dialog], [role=radiogroup]")) return;
      const key = e.key === " " ? "space" : plainKey(e);
      // A sign that needs shift on this keyboard ("+") is a key of its own.
      const action =
        keys.get(e.shiftKey ? `shift+${key}` : key) ?? (/^\W$/.test(e.key) ? keys.get(e.key) : undefined);
      if (!action) return;
      e.preventDefault();
      e.stopPropagation();
      action();
    };
    document.addEventListener("keydown", pressed, true);
    return () => document.removeEventListener("keydown", pressed, true);
  }, [keys, enabled]);
}
