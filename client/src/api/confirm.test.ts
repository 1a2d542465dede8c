import createClient from "openapi-fetch";
import { afterEach, describe, expect, it, vi } from "vitest";
import { confirming, confirmWith } from "./confirm";
import type { paths } from "./schema";

const json = (status: number, body: object) => Response.json(body, { status });
const wanted = () => json(403, { type: "reauthenticate", title: "Give your password again." });

/** A server that wants the password until it was given. */
function server(answer: (request: Request) => Response | Promise<Response>) {
  const asked: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(await request.clone().text());
    return answer(request);
  });
  const client = createClient<paths>({ baseUrl: "http://clinic.example/", fetch: (r) => fetch(r) });
  client.use(confirming());
  const send = () => client.PUT("/api/account", { body: { name: "Ines" } });
  return { asked, send };
}

afterEach(() => vi.unstubAllGlobals());

describe("what wants the password again", () => {
  it("is sent again as it was, after the password was given", async () => {
    let given = false;
    const { asked, send } = server(() => (given ? json(200, {}) : wanted()));
    const stop = confirmWith(() => {
      given = true;
      return Promise.resolve(true);
    });
    expect((await send()).response.status).toBe(200);
    expect(asked).toEqual(['{"name":"Ines"}', '{"name":"Ines"}']);
    stop();
  });

  it("stays refused where it was not given, and is not sent again", async () => {
    const { asked, send } = server(wanted);
    const stop = confirmWith(() => Promise.resolve(false));
    const answer = await send();
    expect([answer.response.status, asked.length]).toEqual([403, 1]);
    expect(answer.error).toMatchObject({ title: "Give your password again." });
    stop();
  });

  it("asks once for what comes at the same time", async () => {
    let given = false;
    const { send } = server(() => (given ? json(200, {}) : wanted()));
    const ask = vi.fn(async () => {
      await Promise.resolve();
      given = true;
      return true;
    });
    const stop = confirmWith(ask);
    const answers = await Promise.all([send(), send(), send()]);
    expect(answers.map((a) => a.response.status)).toEqual([200, 200, 200]);
    expect(ask).toHaveBeenCalledOnce();
    stop();
  });

  it("is not asked for where a role is missing, or nobody can ask", async () => {
    const ask = vi.fn(() => Promise.resolve(true));
    const { send } = server(() => json(403, { title: "Your role does not include this." }));
    const stop = confirmWith(ask);
    expect((await send()).response.status).toBe(403);
    expect(ask).not.toHaveBeenCalled();
    stop();
    expect((await server(wanted).send()).response.status).toBe(403);
  });
});
