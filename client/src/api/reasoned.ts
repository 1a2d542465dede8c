import { sentAgain } from "./again";
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
export const reasoning = () =>
  sentAgain(async (answer, sent) => {
    const why = ask && (await missing(answer, sent));
    const reason = why ? await askReason(why) : null;
    if (reason === null) return null;
    const body = { ...((await sent.clone().json()) as object), reason };
    return new Request(sent, { body: JSON.stringify(body) });
  });
