import { vi } from "vitest";
import { api } from "../api/client";
import type { Problem } from "../api/client";

interface Asked {
  body?: unknown;
  params?: { path?: Record<string, string> };
}

/** What a server answers with in the place of data. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly problem: Partial<Problem>,
  ) {}
}

type Answers = Record<string, (asked: Asked) => unknown>;

/**
 * A server of the addresses named as in the API description, "PUT /api/clinic"; whatever else is asked is refused. What it was
 * asked is kept, in order.
 */
export function answering(answers: Answers) {
  const calls: { what: string; body: unknown }[] = [];
  for (const method of ["GET", "POST", "PUT", "DELETE"] as const) {
    vi.spyOn(api, method).mockImplementation((async (path: string, asked: Asked = {}) => {
      const what = `${method} ${path}`;
      calls.push({ what, body: asked.body });
      const answer = answers[what]?.(asked) ?? new Refusal(404, { title: `Nobody answers ${what}.` });
      return answer instanceof Refusal
        ? { error: answer.problem, response: new Response(null, { status: answer.status }) }
        : { data: answer, response: new Response(null, { status: 200 }) };
    }) as never);
  }
  return { calls, bodies: (what: string) => calls.filter((c) => c.what === what).map((c) => c.body) };
}
