const seenAt = "palaestra-cards-seen";

/** Who has seen the first cards on this device, or did not want to. */
function seen(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(seenAt) ?? "[]");
    return Array.isArray(kept) ? kept.filter((name) => typeof name === "string") : [];
  } catch {
    return [];
  }
}

export const hasSeenCards = (who: string) => seen().includes(who);

export function cardsSeen(who: string) {
  try {
    localStorage.setItem(seenAt, JSON.stringify([...new Set([...seen(), who])]));
  } catch {
    // A browser that keeps nothing asks again.
  }
}
