import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { CaptureEvent, Library } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import { smallLibrary } from "../given/library";
import { answering } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { openWorry, WorryQuestion } from "./WorryQuestion";

const trial = (change: Partial<LiveTrialState>): LiveTrialState =>
  ({
    trialId: "t1",
    startedAt: 1000,
    endedAt: 2000,
    ended: "stopped",
    side: "left",
    worry: null,
    worrySide: null,
    ...change,
  }) as LiveTrialState;

const asked = (at: number): CaptureEvent =>
  ({
    id: `a${at}`,
    trialId: `a${at}`,
    at: new Date(at).toISOString(),
    kind: "leg-asked",
    side: "left",
    back: true,
  }) as CaptureEvent;

describe("a worry that has to be answered first", () => {
  it("is that of the last set that ended, not of one that is running or came before", () => {
    const worried = trial({ worry: "down-the-leg" });
    expect(openWorry([worried], [])).toBe(worried);
    expect(openWorry([worried, trial({ startedAt: 3000, ended: null, endedAt: null })], [])).toBe(worried);
    expect(openWorry([worried, trial({ startedAt: 3000, endedAt: 4000 })], [])).toBeNull();
    expect(openWorry([trial({ startedAt: 3000, endedAt: 4000 }), worried], [])).toBeNull();
  });

  it("is none where the client was dizzy or only wished to stop", () => {
    expect(openWorry([trial({ worry: "dizzy-or-unwell" })], [])).toBeNull();
    expect(openWorry([trial({ worry: "clients-wish" })], [])).toBeNull();
    expect(openWorry([], [])).toBeNull();
  });

  it("is answered by asking about the leg after it, not before", () => {
    const worried = trial({ worry: "down-the-leg" });
    expect(openWorry([worried], [asked(1500)])).toBe(worried);
    expect(openWorry([worried], [asked(2500)])).toBeNull();
  });

  it("of numbness is not answered by asking about the leg", () => {
    const numb = trial({ worry: "numb-or-weak" });
    expect(openWorry([numb], [asked(2500)])).toBe(numb);
  });
});

describe("the question itself", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  function ask(
    of: LiveTrialState,
    flags: unknown[] = [{ id: "weak-leg", worry: "numb-or-weak", words: "" }],
  ) {
    const queries = quietQueries();
    queries.setQueryData(keys.library, { ...smallLibrary, dangerSigns: flags } as unknown as Library);
    const record = vi.fn();
    const onPassed = vi.fn();
    show(<WorryQuestion trial={of} episodeId="e1" record={record} onPassed={onPassed} />, queries);
    return { record, onPassed };
  }
  const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

  it("writes down on which leg pain went back or stayed", () => {
    const { record } = ask(trial({ worry: "down-the-leg", worrySide: "right" }));
    press(say("frame.it-stayed-examine"));
    press(say("frame.back-where-it-was"));
    expect(record.mock.calls.map(([, kind, fields]) => [kind, fields])).toEqual([
      ["leg-asked", { side: "right", back: false }],
      ["leg-asked", { side: "right", back: true }],
    ]);
  });

  it("takes the side of the set where none was told, and left for both", () => {
    const { record } = ask(trial({ worry: "down-the-leg", side: "both" }));
    press(say("frame.it-stayed-examine"));
    expect(record.mock.calls[0]![2]).toEqual({ side: "left", back: false });
  });

  it("reports the red flags of numbness, and lets it pass only when it was examined", async () => {
    const server = answering({ "POST /api/episodes/{id}/danger-reports": () => ({}) });
    const { onPassed, record } = ask(trial({ worry: "numb-or-weak" }));
    press(say("frame.record-the-red-flag"));
    await waitFor(() =>
      expect(server.bodies("POST /api/episodes/{id}/danger-reports")).toEqual([
        { dangerSigns: ["weak-leg"] },
      ]),
    );
    expect(onPassed).not.toHaveBeenCalled();
    press(say("frame.examined-it-was-neither"));
    expect(onPassed).toHaveBeenCalled();
    expect(record).not.toHaveBeenCalled();
  });

  it("does not report a flag that the library does not have", () => {
    ask(trial({ worry: "numb-or-weak" }), []);
    expect(screen.getByRole("button", { name: say("frame.record-the-red-flag") })).toHaveProperty(
      "disabled",
      true,
    );
  });
});
