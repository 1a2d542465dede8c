import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { keys } from "../api/queries";
import type { BatteryView, ScreenView } from "../api/types";
import { quietQueries } from "../given/show";
import { useBattery } from "./useBattery";

const view = (tasks: string[], version: number): BatteryView =>
  ({
    version,
    battery: {
      items: tasks.map((taskId) => ({ taskId, why: "", minutes: 1, sides: [], surface: null, cautions: [] })),
      leftOut: [],
      minutes: tasks.length,
      minutesAsked: 15,
      missing: [],
      positionChanges: 0,
    },
  }) as BatteryView;

/** A server that keeps a battery and refuses what was made from an older version. */
function server(first: BatteryView) {
  let stored = first;
  const put = vi.spyOn(api, "PUT").mockImplementation((async (_path: string, init: { body: Body }) => {
    await new Promise((resolve) => setTimeout(resolve, 20));
    if (init.body.version !== stored.version)
      return {
        error: { title: "changed on another tablet", current: stored },
        response: new Response(null, { status: 409 }),
      };
    stored = view(init.body.taskIds, stored.version + 1);
    return { data: stored, response: new Response(null, { status: 200 }) };
  }) as never);
  return { put, now: () => stored, changeElsewhere: () => (stored = view(["stance"], stored.version + 1)) };
}

interface Body {
  taskIds: string[];
  version: number;
}

let queries = quietQueries();
beforeEach(() => {
  queries = quietQueries();
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function edit(first: BatteryView) {
  queries.setQueryData(keys.screen("v1"), { battery: first } as ScreenView);
  const shown = () => queries.getQueryData<ScreenView>(keys.screen("v1"))!.battery;
  const wrapper = (props: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{props.children}</QueryClientProvider>
  );
  const { result } = renderHook(() => useBattery("v1", shown(), () => {}), { wrapper });
  return { result, tasks: () => shown().battery.items.map((item) => item.taskId) };
}

describe("changing the battery", () => {
  it("shows a change before the server has answered", async () => {
    server(view(["stance", "fists"], 3));
    const { result, tasks } = edit(view(["stance", "fists"], 3));
    act(() => result.current.store(["fists"]));
    await waitFor(() => expect(tasks()).toEqual(["fists"]));
  });

  it("stores quick changes one after the other, each from the version of the one before", async () => {
    const stand = server(view(["stance", "fists", "roll"], 1));
    const { result, tasks } = edit(view(["stance", "fists", "roll"], 1));
    act(() => {
      result.current.store(["fists", "roll"]);
      result.current.store(["fists", "roll", "kick-back"]);
      result.current.store(["roll", "kick-back"]);
    });
    await waitFor(() => expect(stand.now().version).toBe(4));
    expect(stand.put).toHaveBeenCalledTimes(3);
    await waitFor(() => expect(tasks()).toEqual(["roll", "kick-back"]));
    expect(result.current.conflict).toBe(false);
  });

  it("is not overtaken by an answer that was on its way before it", async () => {
    const stand = server(view(["stance"], 1));
    const { result, tasks } = edit(view(["stance"], 1));
    let answer: (old: ScreenView) => void = () => {};
    void queries
      .fetchQuery({
        queryKey: keys.screen("v1"),
        queryFn: () => new Promise<ScreenView>((r) => (answer = r)),
      })
      .catch(() => null);
    act(() => result.current.store(["stance", "fists"]));
    await waitFor(() => expect(tasks()).toEqual(["stance", "fists"]));
    answer({ battery: view(["stance"], 1) } as ScreenView);
    await new Promise((resolve) => setTimeout(resolve, 5));
    expect(tasks()).toEqual(["stance", "fists"]);
    await waitFor(() => expect(stand.now().version).toBe(2));
  });

  it("says when another tablet was faster", async () => {
    const stand = server(view(["stance", "fists"], 1));
    const { result } = edit(view(["stance", "fists"], 1));
    stand.changeElsewhere();
    act(() => result.current.store(["fists"]));
    await waitFor(() => expect(result.current.conflict).toBe(true));
    expect(stand.now().battery.items.map((i) => i.taskId)).toEqual(["stance"]);
  });
});
