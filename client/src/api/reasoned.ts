import type { Middleware } from "openapi-fetch";
import type { components } from "./schema";

type Problem = components["schemas"]["Problem"];
type Ask = (why: string) => Promise<string | null>;

let ask: Ask | null = null;

/** Who asks why something is changed on which other things may rest. */
export function reasonWith(asker: Ask) {
  ask = asker;
  return () => {
    if (ask === asker) ask = null;
  };
}

/** Asks why; null where it is left as it was. For what is written as events, which the server refuses for no want of a reason. */
export const askReason: Ask = (why) => (ask ? ask(why) : Promise.resolve(null));

/** What the server says where nothing but the reason is missing; a form that has a field for it asks by itself. */
async function missing(answer: Response, sent: Request): Promise<string | null> {
  if (answer.status !== 422) return null;
  const json = (from: Request | Response): Promise<unknown> =>
    from
      .clone()
      .json()
      .catch(() => null);
  const body = await json(sent);
  if (typeof body !== "object" || body === null || "reason" in body) return null;
  const problem = (await json(answer)) as Partial<Problem> | null;
  const [only, ...others] = problem?.errors ?? [];
  return only?.field === "reason" && others.length === 0 ? only.message : null;
}

/** A change that is refused for want of a reason is sent again with the one that was given. */
export function reasoning(): Middleware {
  const sent = new Map<string, Request>();
  return {
    onRequest({ request, id }) {
      // A body can be read once.
      sent.set(id, request.clone());
    },
    async onResponse({ response, id }) {
      const again = sent.get(id);
      sent.delete(id);
      if (!again || !ask) return undefined;
      const why = await missing(response, again);
      if (why === null) return undefined;
      const reason = await ask(why);
      if (reason === null) return response;
      const body = { ...((await again.clone().json()) as object), reason };
      return fetch(new Request(again, { body: JSON.stringify(body) }));
    },
    onError({ id }) {
      sent.delete(id);
    },
  };
}
