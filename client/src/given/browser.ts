/** What the simulated browser of the tests lacks. Ids of the page need no escape. */
if (typeof CSS === "undefined") Object.assign(globalThis, { CSS: { escape: (id: string) => id } });

/** What the device says of light, paper and the like: nothing, until a test says otherwise (`deviceSays`). */
const media = new Map<string, EventTarget & { matches: boolean }>();
const mediumOf = (query: string) => {
  const known = media.get(query) ?? Object.assign(new EventTarget(), { matches: false });
  media.set(query, known);
  return known;
};
// Some tests have no window at all.
if (typeof window !== "undefined") window.matchMedia ??= mediumOf as unknown as typeof window.matchMedia;

export function deviceSays(query: string, matches: boolean) {
  const medium = window.matchMedia(query) as unknown as ReturnType<typeof mediumOf>;
  medium.matches = matches;
  medium.dispatchEvent(new Event("change"));
}
