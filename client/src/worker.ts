/** Where the browser may keep the page for a start without the server: over https and on the machine itself. */
const possible = () => "serviceWorker" in navigator && globalThis.isSecureContext && import.meta.env.PROD;

/** Keeps the page once it has shown itself; a new version waits until it is wanted. */
export function keepPage() {
  if (!possible()) return;
  addEventListener("load", () => void register());
  if (document.readyState === "complete") void register();
}

async function register() {
  try {
    const kept = await navigator.serviceWorker.register("/sw.js");
    // This page is of the server's build already: so may the kept one be.
    kept.waiting?.postMessage("take-over");
  } catch {
    // Without it everything works while the server is there.
  }
}

/** Loads the new version, also the one that is kept. */
export async function takeNewVersion() {
  const kept = possible() ? await navigator.serviceWorker.getRegistration() : undefined;
  await kept?.update().catch(() => undefined);
  kept?.waiting?.postMessage("take-over");
  location.reload();
}
