import { sentAgain } from "./again";

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
export const confirming = () =>
  sentAgain(async (answer, sent) => {
    if (!ask || !(await wantsPassword(answer))) return null;
    return (await once(ask)) ? sent : null;
  });
