import { useEffect } from "react";

/**
 * Keys of a live screen. They work wherever the focus is, so that the space bar always counts a rep and never presses
 * a fault by accident; Enter still presses what is focused. Fields and dialogs keep their own keys.
 */
export function useLiveKeys(keys: Map<string, () => void>, enabled: boolean) {
  useEffect(() => {
    if (!enabled) return;
    const pressed = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      if (target.closest("input, textarea, select, [role=dialog], [role=radiogroup]")) return;
      const action = keys.get(e.key === " " ? "space" : e.key.toLowerCase());
      if (!action) return;
      e.preventDefault();
      e.stopPropagation();
      action();
    };
    document.addEventListener("keydown", pressed, true);
    return () => document.removeEventListener("keydown", pressed, true);
  }, [keys, enabled]);
}
