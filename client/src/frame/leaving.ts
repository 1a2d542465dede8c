const listeners = new Set<() => void>();

/** Whoever signs out leaves what is open; anybody else whose sign-in ended is asked for it again where they are. */
export const leave = () => listeners.forEach((left) => left());

/** Calls when somebody leaves; returns what ends that. */
export function onLeave(left: () => void) {
  listeners.add(left);
  return () => void listeners.delete(left);
}
