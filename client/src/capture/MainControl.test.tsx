import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { MeasureKind, ScreenTask } from "../api/types";
import { smallLibrary } from "../given/library";
import { show } from "../given/show";
import { actionsOf } from "./actions";
import { FaultList } from "./FaultList";
import { changeSettings, liveSettings } from "./liveSettings";
import { liveTrials } from "./liveTrial";
import { MainControl } from "./MainControl";
import { tape } from "./testLibrary";

let recorded: { kind: string; fields: object | undefined }[] = [];
let pressed = 0;
beforeEach(() => {
  recorded = [];
  pressed = 0;
});
afterEach(cleanup);

function control(measure: MeasureKind, taps: Parameters<ReturnType<typeof tape>["tap"]>[0][] = [], hold = 0) {
  const { events, tap } = tape("t1", hold);
  taps.forEach((kind) => tap(kind));
  const trial = liveTrials(events, smallLibrary)[0]!;
  const task = { full: 2, points: ["no trouble", "hard", "cannot"] } as ScreenTask;
  show(
    <MainControl
      trial={trial}
      task={task}
      measure={measure}
      actions={actionsOf(trial, events, (_id, kind, ...[fields]) => void recorded.push({ kind, fields }))}
      counting={null}
      cm={61}
      onCm={() => {}}
      onMain={() => (pressed += 1)}
      met={false}
    />,
  );
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));

describe("the main control", () => {
  it("is yes or no where that is the question", () => {
    control("yes-no");
    press("It stayed level");
    press("It dropped");
    expect(recorded.map((r) => r.fields)).toEqual([{ amount: 1 }, { amount: 0 }]);
  });

  it("is the points of the task where effort is asked", () => {
    control("effort");
    expect(screen.getAllByRole("button")).toHaveLength(3);
    press(/cannot/);
    expect(recorded).toEqual([{ kind: "measure-taken", fields: { amount: 2 } }]);
  });

  it("counts a reach that needs no typing", () => {
    control("centimetres");
    expect(screen.getByRole("button", { name: "+5" })).toBeTruthy();
    press("Reach counts");
    expect(pressed).toBe(1);
  });

  it.each([
    ["reps", [], 0, "Rep done"],
    ["reps", [], 3, "Start hold"],
    ["seconds", ["hold-started"], 45, "End hold"],
    ["degrees", [], 0, "Rep done"],
  ] as const)("of %s after %o with a hold of %i says “%s”", (measure, taps, hold, words) => {
    control(measure, [...taps], hold);
    expect(screen.getByRole("button").textContent).toBe(words);
  });

  it("goes on, whatever is measured, while the trial is paused", () => {
    control("yes-no", ["trial-paused"]);
    press("Continue");
    expect(recorded.map((r) => r.kind)).toEqual(["trial-resumed"]);
  });
});

describe("the list of all faults", () => {
  it("marks one, says so, and stays open for the next", () => {
    const marked: string[] = [];
    show(
      <FaultList
        library={smallLibrary}
        rung={smallLibrary.ladders[0]!.rungs[0]!}
        onMark={(code) => marked.push(code)}
      />,
    );
    press("Another fault …");
    press("low back arches");
    expect(marked).toEqual(["arch"]);
    expect(screen.getByRole("status").textContent).toBe("Marked: low back arches.");
  });
});

describe("the settings of this tablet", () => {
  it("are kept, and a change of one leaves the others", () => {
    const before = liveSettings();
    changeSettings({ thumb: "right" });
    expect(liveSettings()).toEqual({ ...before, thumb: "right" });
    expect(JSON.parse(localStorage.getItem("palaestra.live")!)).toMatchObject({ thumb: "right" });
    changeSettings({ thumb: "left" });
  });
});
