import { act, cleanup, renderHook } from "@testing-library/react";
import { QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { afterEach, describe, expect, it } from "vitest";
import { ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { CheckIn, EpisodeView, IntakeForm } from "../api/types";
import type { HeldAnswer } from "../capture/heldAnswers";
import { TabletContext, type Tablet } from "../capture/TabletContext";
import { quietQueries } from "../given/show";
import { useHold } from "./useHold";

afterEach(cleanup);

/** A tablet that keeps what is held, but for what it is told to refuse. */
function tablet(refuses: HeldAnswer["kind"] | null = null) {
  const kept: HeldAnswer[] = [];
  const queries = quietQueries();
  queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo" });
  queries.setQueryData(keys.episode("e1"), {
    visits: [],
    dangerReports: [],
    closed: false,
  } as unknown as EpisodeView);
  const held = {
    hold: (answer: HeldAnswer) => {
      if (answer.kind === refuses) return Promise.reject(new Error("full"));
      kept.push(answer);
      return Promise.resolve();
    },
  };
  const { result } = renderHook(() => useHold(), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={queries}>
        <TabletContext value={{ held } as unknown as Tablet}>{children}</TabletContext>
      </QueryClientProvider>
    ),
  });
  return { kept, queries, hold: result.current };
}

const away = () => Promise.reject(new ProblemError(0, "The server is away."));
const visit = { episodeId: "e1", visitId: "v1" };
const form = { complaint: "sore", pain: { now: 3 }, precautions: [], policyId: "p" };
const intake = (dangerSigns: string[]) => ({
  kind: "intake" as const,
  ...visit,
  form: { ...form, dangerSigns } as unknown as IntakeForm,
  before: { ...form, dangerSigns: [] } as unknown as IntakeForm,
});
const checkIn = { kind: "check-in" as const, ...visit, checkIn: {} as CheckIn, version: 1, before: null };

describe("what is answered while the server is away", () => {
  it("is held in the name of who answered", async () => {
    const { kept, hold } = tablet();
    expect(await act(() => hold(away, intake([])))).toBeNull();
    expect(kept).toMatchObject([{ kind: "intake", name: "Ines Arroyo", visitId: "v1" }]);
  });

  it("holds a red flag by itself and before the answers it came with: they may be refused or answered again", async () => {
    const { kept, queries, hold } = tablet();
    await act(() => hold(away, intake(["saddle"])));
    await act(() => hold(away, intake([])));
    expect(kept.map((k) => k.kind)).toEqual(["red-flags", "intake", "intake"]);
    expect(kept[0]).toMatchObject({ dangerSigns: ["saddle"], episodeId: "e1" });
    expect(kept[0]!.id).not.toBe(kept[1]!.id);
    expect(queries.getQueryData<EpisodeView>(keys.episode("e1"))!.closed).toBe(true);
  });

  it("keeps the red flag where there is no room for the answers, and says that the server is away", async () => {
    const { kept, hold } = tablet("intake");
    await expect(hold(away, intake(["saddle"]))).rejects.toThrow("The server is away.");
    expect(kept.map((k) => k.kind)).toEqual(["red-flags"]);
  });

  it("is not held where nothing came along to weigh it by, or where the server has refused it", async () => {
    const { kept, hold } = tablet();
    await expect(hold(away, checkIn)).rejects.toThrow("The server is away.");
    const refused = () => Promise.reject(new ProblemError(422, "Not like this."));
    await expect(hold(refused, intake([]))).rejects.toThrow("Not like this.");
    expect(kept).toEqual([]);
  });

  it("is what the server answers where it answers", async () => {
    const { kept, hold } = tablet();
    expect(await hold(() => Promise.resolve("stored"), intake(["saddle"]))).toBe("stored");
    expect(kept).toEqual([]);
  });
});
