import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { CaptureEvent } from "../api/types";
import { liveTrials } from "../capture/liveTrial";
import { tape } from "../capture/testLibrary";
import { smallLibrary } from "../given/library";
import { show } from "../given/show";
import { Elsewhere } from "./Elsewhere";
import { LastTrial } from "./LastTrial";

afterEach(cleanup);

let recorded: { kind: string; fields: object | undefined }[] = [];
const record = (_trial: string, kind: string, fields?: object) => recorded.push({ kind, fields });
beforeEach(() => {
  recorded = [];
});

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));

function started() {
  const { events, tap } = tape("t1", 0);
  events[0] = { ...events[0]!, rungId: "B5", by: "Bram Oakley" } as CaptureEvent;
  return { events, tap };
}

describe("the trial before", () => {
  function ended() {
    const { events, tap } = started();
    tap("rep-done");
    const end = tap("trial-ended", { reason: "stopped" });
    tap("pain-marked", { phase: "after", value: 3 });
    const trial = liveTrials(events, smallLibrary)[0]!;
    show(<LastTrial trial={trial} events={events} library={smallLibrary} record={record} />);
    return { trial, end };
  }

  it("is opened again by taking back its end, not what was told after it", () => {
    const { end } = ended();
    press("Undo its end");
    expect(recorded).toEqual([{ kind: "undone", fields: { undoes: end.id } }]);
  });

  it("takes pain, where it was felt, the other side, and can be discarded", () => {
    const { trial } = ended();
    press("Pain after, where felt");
    fireEvent.click(screen.getByRole("radio", { name: "low back" }));
    press(/^It was the/);
    press("Discard it");
    expect(recorded.map((r) => r.kind)).toEqual(["felt-marked", "side-corrected", "trial-discarded"]);
    expect(recorded[1]!.fields).toEqual({ side: trial.side === "left" ? "right" : "left" });
  });
});

describe("a trial that is open elsewhere", () => {
  it("says with whom, and can be taken over, ended or discarded", () => {
    const { events } = started();
    const taken: string[] = [];
    show(
      <Elsewhere
        trials={liveTrials(events, smallLibrary)}
        library={smallLibrary}
        record={record}
        onTake={(id) => taken.push(id)}
      />,
    );
    expect(screen.getByRole("note").textContent).toContain("with Bram Oakley");
    press("Continue it here");
    press("End it");
    press("Discard it");
    expect(taken).toEqual(["t1"]);
    expect(recorded.map((r) => r.kind)).toEqual(["trial-ended", "trial-discarded"]);
  });
});
