import { useEffect, useRef } from "react";

/**
 * Takes the focus when a new step appears and the focus was lost with the old one (its button is gone), so that keys
 * and screen readers go on at the main action. Never takes it from where somebody put it.
 */
export function useTakeFocus<T extends HTMLElement>() {
  const element = useRef<T>(null);
  useEffect(() => {
    const active = document.activeElement;
    // A heading has it only because nothing better was there.
    if (!active || active === document.body || active.matches("h1[tabindex='-1']")) element.current?.focus();
  }, []);
  return element;
}
