import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { ClientCard } from "../api/types";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { BookDialog } from "./BookDialog";

const card = (change: Partial<ClientCard>): ClientCard =>
  ({
    id: "c1",
    name: "Maris Telleke",
    inChargeId: null,
    episodes: [
      {
        id: "e1",
        openedOn: "2026-11-01",
        dischargedOn: null,
        complaint: "Low back",
        asked: true,
        visitId: "v1",
        visits: 1,
      },
    ],
    ...change,
  }) as ClientCard;

function open(answers: Record<string, (asked: { body?: unknown }) => unknown>, client = card({})) {
  const server = answering(answers);
  const queries = quietQueries();
  queries.setQueryData(keys.client("c1"), client);
  queries.setQueryData(keys.practitioners, [{ id: "p1", name: "Ines Arroyo" }]);
  queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo", roles: ["practitioner"] });
  const done = vi.fn();
  show(<BookDialog clientId="c1" day="2026-12-03" onDone={done} />, queries);
  return { server, done };
}

const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const choose = (name: string) => fireEvent.click(screen.getByRole("radio", { name }));
const more = () =>
  fireEvent.click(
    within(screen.getByRole("textbox", { name: say("frame.how-many-visits") }).parentElement!).getByText("+"),
  );

describe("a booking", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("is at the time on the clinic's wall, in the episode that is open", async () => {
    const { server, done } = open({ "POST /api/episodes/{id}/visits": () => ({ id: "v2" }) });
    press(say("frame.book"));
    await waitFor(() => expect(done).toHaveBeenCalledWith({ episodeId: "e1", visitId: "v2", now: false }));
    expect(server.bodies("POST /api/episodes/{id}/visits")).toMatchObject([
      { plannedAt: "2026-12-03T10:00:00", minutes: 30, withId: null, fromPaper: false, anyway: false },
    ]);
  });

  it("of somebody who walked in has no time: it is now", async () => {
    const { server, done } = open({ "POST /api/episodes/{id}/visits": () => ({ id: "v2" }) });
    choose(say("frame.now-walked-in"));
    expect(screen.queryByText(say("frame.day-and-time"))).toBeNull();
    press(say("frame.book"));
    await waitFor(() => expect(done).toHaveBeenCalledWith({ episodeId: "e1", visitId: "v2", now: true }));
    expect(server.bodies("POST /api/episodes/{id}/visits")).toMatchObject([{ plannedAt: null }]);
  });

  it("whose time is taken says what stands there, and is sent again under the same id when asked", async () => {
    let taken = true;
    const { server, done } = open({
      "POST /api/episodes/{id}/visits": () =>
        taken
          ? new Refusal(409, { type: "taken", title: "The time is taken: Halla Wintering." })
          : { id: "v2" },
    });
    press(say("frame.book"));
    await waitFor(() => expect(screen.getByText(/Halla Wintering/)).toBeTruthy());
    expect(done).not.toHaveBeenCalled();
    taken = false;
    press(say("frame.book-it-anyway"));
    await waitFor(() => expect(done).toHaveBeenCalled());
    const [first, second] = server.bodies("POST /api/episodes/{id}/visits") as {
      id: string;
      anyway: boolean;
    }[];
    expect([first!.anyway, second!.anyway]).toEqual([false, true]);
    expect(second!.id).toBe(first!.id);
  });

  it("of several is a series; the days that were left out are told before it closes", async () => {
    const { server, done } = open({
      "POST /api/episodes/{id}/visits/series": () => ({
        seriesId: "s1",
        booked: [{ visitId: "v2" }],
        leftOut: [{ at: "2026-12-10T10:00:00", why: "The client is away." }],
      }),
    });
    more();
    press(say("frame.book"));
    await waitFor(() => expect(screen.getByText(/The client is away/)).toBeTruthy());
    expect(done).not.toHaveBeenCalled();
    expect(server.bodies("POST /api/episodes/{id}/visits/series")).toMatchObject([
      { first: "2026-12-03T10:00:00", everyDays: 7, count: 2 },
    ]);
    press(say("frame.done"));
    expect(done).toHaveBeenCalledWith({ episodeId: "e1", visitId: "v2", now: false });
  });

  it("of a client without an open episode opens one, and two visits are two", async () => {
    const { server, done } = open(
      {
        "POST /api/clients/{clientId}/episodes": () => ({ episodeId: "e9", visitId: "v9" }),
        "POST /api/episodes/{id}/visits": () => ({ id: "v10" }),
      },
      card({ episodes: [] }),
    );
    more();
    press(say("frame.book"));
    await waitFor(() => expect(done).toHaveBeenCalledWith({ episodeId: "e9", visitId: "v9", now: false }));
    expect(server.calls.filter((c) => c.what.startsWith("POST")).map((c) => c.what)).toEqual([
      "POST /api/clients/{clientId}/episodes",
      "POST /api/episodes/{id}/visits",
    ]);
    expect(server.bodies("POST /api/episodes/{id}/visits")).toMatchObject([
      { plannedAt: "2026-12-10T10:00:00" },
    ]);
  });

  it("that was refused says why at its field, and keeps what was chosen", async () => {
    open({
      "POST /api/episodes/{id}/visits": () =>
        new Refusal(422, {
          title: "Please check.",
          errors: [{ field: "plannedAt", message: "The clocks go forward that night." }],
        }),
    });
    press(say("frame.book"));
    await waitFor(() => expect(screen.getByText("The clocks go forward that night.")).toBeTruthy());
    expect(screen.queryByText("Please check.")).toBeNull();
  });
});
