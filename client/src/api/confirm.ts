import type { Middleware } from "openapi-fetch";

type Ask = () => Promise<boolean>;

let ask: Ask | null = null;
let asking: Promise<boolean> | null = null;

/** Who asks for the password where the server wants it again; whatever waits at the same time is asked for once. */
export function confirmWith(asker: Ask) {
  ask = asker;
  return () => {
    if (ask === asker) ask = null;
  };
}

const once = (asker: Ask) =>
  (asking ??= asker().finally(() => {
    asking = null;
  }));

const wantsPassword = async (answer: Response) =>
  answer.status === 403 &&
  (
    (await answer
      .clone()
      .json()
      .catch(() => null)) as { type?: string } | null
  )?.type === "reauthenticate";

/** A request that is refused until the password is given again is sent again after it was. */
export function confirming(): Middleware {
  const sent = new Map<string, Request>();
  return {
    onRequest({ request, id }) {
      // A body can be read once.
      sent.set(id, request.clone());
    },
    async onResponse({ response, id }) {
      const again = sent.get(id);
      sent.delete(id);
      if (!again || !ask || !(await wantsPassword(response))) return undefined;
      return (await once(ask)) ? fetch(again) : response;
    },
    onError({ id }) {
      sent.delete(id);
    },
  };
}
