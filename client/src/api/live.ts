/** Hears of a visit that has new events; null: of none in particular, anything may be new. */
type Listener = (visitId: string | null) => void;

const listeners = new Set<Listener>();
const shared = "palaestra-live";
let begun = false;

const tell = (visitId: string | null) => listeners.forEach((listener) => listener(visitId));

/**
 * News of visits as they are stored, of all tablets. One stream for the browser: one of its tabs holds it and tells the others,
 * since a browser opens few connections to one server. It is taken up where it was when the connection comes back.
 */
export function onNews(listener: Listener) {
  listeners.add(listener);
  begin();
  return () => void listeners.delete(listener);
}

function begin() {
  if (begun || typeof EventSource === "undefined") return;
  begun = true;
  const tabs = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(shared);
  if (tabs) tabs.onmessage = (message: MessageEvent<string | null>) => tell(message.data);
  const lead = () =>
    new Promise<never>(() =>
      listen((visitId) => {
        tell(visitId);
        tabs?.postMessage(visitId);
      }),
    );
  // Held until the tab is closed; then the next one takes it.
  if (navigator.locks) void navigator.locks.request(shared, lead);
  else void lead();
}

const againMs = 5000;

function listen(tellAll: Listener, after = false) {
  const source = new EventSource("/api/live");
  // A new stream knows nothing of what came before it.
  if (after) source.onopen = () => tellAll(null);
  source.onmessage = (message: MessageEvent<string>) =>
    tellAll((JSON.parse(message.data) as { visitId: string | null }).visitId);
  source.onerror = () => {
    // A lost connection is taken up by the browser itself; a refusal (signed out) is not.
    if (source.readyState === EventSource.CLOSED) setTimeout(() => listen(tellAll, true), againMs);
  };
}
