import { pageBuild } from "./api/versions";

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
    const fresh = kept.waiting ?? kept.installing;
    if (fresh) await reaches(fresh, "installed");
    takeOver(kept, pageBuild());
  } catch {
    // Without it everything works while the server is there.
  }
}

/** @param build the worker takes over if it keeps this page: with another one the files of this page were gone */
const takeOver = (kept: ServiceWorkerRegistration, build: string | null) =>
  kept.waiting?.postMessage({ takeOver: build });

/** All of a new version is in the browser after so long, or the page is loaded without it. */
const newVersionMs = 20_000;

/** Loads the new version, once the browser keeps it: loaded sooner, the one before may answer in its place. */
export async function takeNewVersion() {
  const kept = possible() ? await navigator.serviceWorker.getRegistration() : undefined;
  if (kept) await Promise.race([isKept(kept), new Promise((late) => setTimeout(late, newVersionMs))]);
  location.reload();
}

async function isKept(kept: ServiceWorkerRegistration) {
  await kept.update().catch(() => undefined);
  const fresh = kept.waiting ?? kept.installing;
  if (!fresh) return;
  await reaches(fresh, "installed");
  takeOver(kept, null);
  await reaches(fresh, "activated");
}

const order: ServiceWorkerState[] = ["installing", "installed", "activating", "activated", "redundant"];

/** The worker is as far as that, or was given up. */
const reaches = (worker: ServiceWorker, state: ServiceWorkerState) =>
  new Promise<void>((resolve) => {
    const look = () => {
      if (order.indexOf(worker.state) >= order.indexOf(state)) resolve();
    };
    worker.addEventListener("statechange", look);
    look();
  });
