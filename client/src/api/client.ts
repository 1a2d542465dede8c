import createClient from "openapi-fetch";
import { confirming } from "./confirm";
import { reasoning } from "./reasoned";
import type { components, paths } from "./schema";
import { hearVersions } from "./versions";
import { say } from "../words/say";

export type Problem = components["schemas"]["Problem"];

export type FieldProblem = Pick<NonNullable<Problem["errors"]>[number], "field" | "message">;

/** Problem details from the server, or the network's failure (status 0). */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    title: string,
    readonly fields: FieldProblem[] = [],
    readonly current: unknown = null,
    /** What is to be done about it, where that has a name. */
    readonly type: string | null = null,
  ) {
    super(title);
  }

  field(name: string): string | undefined {
    return this.fields.find((f) => f.field === name)?.message;
  }
}

/** The server was asked, and did not answer. */
export const isAway = (error: unknown) => error instanceof ProblemError && error.status === 0;

export const api = createClient<paths>({ baseUrl: "/" });
api.use(confirming(), reasoning(), { onResponse: ({ response }) => hearVersions(response.headers) });

export interface Answer<T> {
  data?: T;
  error?: Problem;
  response: Response;
}

/** The data of an answer, or a ProblemError. */
export async function got<T>(asking: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asking;
  } catch {
    throw new ProblemError(0, say("api.the-server-does-not-answer"));
  }
  if (answer.response.ok) {
    return answer.data as T;
  }
  // A proxy on the way may answer with something else.
  const problem: Partial<Problem> = answer.error ?? {};
  throw new ProblemError(
    answer.response.status,
    problem.title ?? say("api.the-server-answered-with-status", { status: answer.response.status }),
    problem.errors ?? [],
    problem.current ?? null,
    problem.type ?? null,
  );
}
