import createClient from "openapi-fetch";
import { afterEach, describe, expect, it, vi } from "vitest";
import { reasoning, reasonWith } from "./reasoned";
import type { paths } from "./schema";

const json = (status: number, body: object) => Response.json(body, { status });
const wanted = (...fields: string[]) =>
  json(422, { title: "Check.", errors: fields.map((field) => ({ field, message: `${field}?` })) });

/** A server that refuses until a reason is there, and what it was sent. */
function server(refusal: () => Response) {
  const asked: Record<string, unknown>[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = (await request.clone().json()) as Record<string, unknown>;
    asked.push(body);
    return body.reason ? json(200, {}) : refusal();
  });
  const client = createClient<paths>({ baseUrl: "http://clinic.example/", fetch: (r) => fetch(r) });
  client.use(reasoning());
  const send = (body: object = { name: "Ines" }) =>
    client.PUT("/api/account", { body: body as { name: string } });
  return { asked, send };
}

afterEach(() => vi.unstubAllGlobals());

describe("a change that wants a reason", () => {
  it("is sent again with the reason that was given, and nothing else of it changed", async () => {
    const { asked, send } = server(() => wanted("reason"));
    const ask = vi.fn(() => Promise.resolve("misheard"));
    const stop = reasonWith(ask);
    expect((await send()).response.status).toBe(200);
    expect(ask).toHaveBeenCalledExactlyOnceWith("reason?");
    expect(asked).toEqual([{ name: "Ines" }, { name: "Ines", reason: "misheard" }]);
    stop();
  });

  it("stays refused where none was given", async () => {
    const { asked, send } = server(() => wanted("reason"));
    const stop = reasonWith(() => Promise.resolve(null));
    expect((await send()).response.status).toBe(422);
    expect(asked).toHaveLength(1);
    stop();
  });

  it("is not asked for where something else is wrong too, or the form asks by itself", async () => {
    const ask = vi.fn(() => Promise.resolve("x"));
    const stop = reasonWith(ask);
    const both = server(() => wanted("reason", "name"));
    expect((await both.send()).response.status).toBe(422);
    const own = server(() => wanted("reason"));
    expect((await own.send({ name: "Ines", reason: "" })).response.status).toBe(422);
    const other = server(() => json(409, { title: "Changed meanwhile." }));
    expect((await other.send()).response.status).toBe(409);
    expect(ask).not.toHaveBeenCalled();
    stop();
  });
});
