/** What the simulated browser of the tests lacks. Ids of the page need no escape. */
if (typeof CSS === "undefined") Object.assign(globalThis, { CSS: { escape: (id: string) => id } });
