import { QueryObserver } from "@tanstack/react-query";
import { afterEach, describe, expect, it, vi } from "vitest";
import { ProblemError } from "./api/client";
import { queryClient } from "./queryClient";

afterEach(() => {
  queryClient.clear();
  vi.useRealTimers();
});

/** How often something is asked for within a minute of a server that answers only after so many seconds. */
async function asked(answersAfter: number, status: number) {
  vi.useFakeTimers();
  const began = Date.now();
  let times = 0;
  const observer = new QueryObserver(queryClient, {
    queryKey: ["away", answersAfter, status],
    queryFn: () => {
      times += 1;
      if (Date.now() - began < answersAfter * 1000) throw new ProblemError(status, "no");
      return "there";
    },
  });
  const stop = observer.subscribe(() => {});
  await vi.advanceTimersByTimeAsync(60_000);
  const { data } = observer.getCurrentResult();
  stop();
  return { times, data };
}

describe("what could not be asked for", () => {
  it("is asked for again by itself until the server is back, and then no more", async () => {
    const { times, data } = await asked(20, 0);
    expect(data).toBe("there");
    expect(times).toBeGreaterThan(4);
    expect(times).toBeLessThan(12);
  });

  it("is not asked for again where the server has refused", async () => {
    const { times, data } = await asked(20, 404);
    expect([times, data]).toEqual([1, undefined]);
  });
});
