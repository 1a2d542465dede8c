import type { Middleware } from "openapi-fetch";

/**
 * Something may be missing from a request that only a person can give: where it is refused for that, they are asked, and it is
 * sent again.
 * @param mend what is sent in its place; null: it stays refused
 */
export function sentAgain(mend: (answer: Response, sent: Request) => Promise<Request | null>): Middleware {
  const kept = new Map<string, Request>();
  return {
    onRequest({ request, id }) {
      // A body can be read once.
      kept.set(id, request.clone());
    },
    async onResponse({ response, id }) {
      const sent = kept.get(id);
      kept.delete(id);
      const again = sent && (await mend(response, sent));
      return again ? fetch(again) : undefined;
    },
    onError({ id }) {
      kept.delete(id);
    },
  };
}
