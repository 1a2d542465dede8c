import { ExpirationPlugin } from "workbox-expiration";
import { enable as preloadPages } from "workbox-navigation-preload";
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";

/** The page opens without the server: its files lie in the browser, and nothing of a client among them. */
declare const self: ServiceWorkerGlobalScope;

/** Written by the server: the build of its page, and the script of the clinic's own sentences where it has some. */
const served = "__PALAESTRA_PAGE__";
const [build, words] = served.split(" ");

const page = "/index.html";
/** A server that hangs longer is as good as away. */
const patienceMs = 1500;

precacheAndRoute(
  [
    ...self.__WB_MANIFEST,
    { url: page, revision: build ?? null },
    ...(words ? [{ url: words, revision: null }] : []),
  ],
  { ignoreURLParametersMatching: [] },
);
cleanupOutdatedCaches();
preloadPages();

/** Pages that the server itself makes. */
const others = [/^\/(api|health|openapi|docs|home|calendar|words\.js)(\/|$)/, /\.[a-z0-9]+$/];

registerRoute(
  new NavigationRoute(
    async ({ event, request }) => {
      const { preloadResponse } = event as FetchEvent;
      const asked = (async () => ((await preloadResponse) as Response | undefined) ?? fetch(request))();
      const late = new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), patienceMs));
      const answer = await Promise.race([asked.catch(() => undefined), late]);
      // What stands between may answer for a server that is away.
      const there = answer && answer.status < 500;
      return there ? answer : ((await matchPrecache(page)) ?? asked);
    },
    { denylist: others },
  ),
);

/** Library and drawings lie under the version they are of: the same for good. */
registerRoute(
  ({ url }) => /^\/api\/(library$|figures(\/|$))/.test(url.pathname) && url.searchParams.has("version"),
  new CacheFirst({ cacheName: "content", plugins: [new ExpirationPlugin({ maxEntries: 400 })] }),
);

// Taken over when it is wanted, or when a page of this build is the only one: another one may still need the files of before.
self.addEventListener("message", (told) => {
  const { takeOver } = told.data as { takeOver: string | null };
  const decide = async () => {
    const pages = await self.clients.matchAll({ type: "window", includeUncontrolled: true });
    if (takeOver === null || (takeOver === build && pages.length === 1)) await self.skipWaiting();
  };
  told.waitUntil(decide());
});
self.addEventListener("activate", (begun) => begun.waitUntil(self.clients.claim()));
