/** What the server tells with every answer: which build of the client it serves, and which version of library and drawings is in force. */
export interface Versions {
  /** None: not told yet. */
  client: string | null;
  content: string | null;
}

let told: Versions = { client: null, content: null };
const listeners = new Set<(now: Versions, before: Versions) => void>();

/** The build this page is of; none where it is served by something else, as while it is written. */
export const pageBuild = () =>
  document.querySelector<HTMLMetaElement>('meta[name="palaestra-client"]')?.content ?? null;

export const contentVersion = () => told.content ?? undefined;

/** What held when the server was heard last, where it is not heard now. */
export function knowContent(content: string) {
  told = { ...told, content };
}

/** Whether a page loaded now would be another one. */
export const newVersion = () => pageBuild() !== null && told.client !== null && told.client !== pageBuild();

/** Calls with each change; returns what ends that. */
export function onVersions(changed: (now: Versions, before: Versions) => void) {
  listeners.add(changed);
  return () => void listeners.delete(changed);
}

/** Reads what an answer tells. One that the browser keeps for good tells what held when it came, and is not heard. */
export function hearVersions(headers: Headers) {
  if (headers.get("cache-control")?.includes("immutable")) return;
  const now = {
    client: headers.get("palaestra-client") ?? told.client,
    content: headers.get("palaestra-content") ?? told.content,
  };
  if (now.client === told.client && now.content === told.content) return;
  const before = told;
  told = now;
  listeners.forEach((changed) => changed(now, before));
}
