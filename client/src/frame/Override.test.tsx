import { cleanup, fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Library, Rung } from "../api/types";
import { show } from "../given/show";
import { say } from "../words/say";
import { Override } from "./Override";
import { RedFlags, flagsAnswered } from "./RedFlags";

afterEach(cleanup);

describe("a barred rung", () => {
  const give = () =>
    screen.getByRole("button", { name: say("frame.prescribe-despite-the-contraindication") });

  it("is given only with a reason and a second look, and the reason without blanks around it", () => {
    const onPick = vi.fn();
    show(
      <Override
        rung={{ id: "B6", name: "Leg reach" } as Rung}
        why="Fragile bone: no bending"
        onBack={() => {}}
        onPick={onPick}
      />,
    );
    expect(screen.getByText("Fragile bone: no bending.")).toBeTruthy();
    expect(give()).toHaveProperty("disabled", true);
    fireEvent.click(screen.getByRole("checkbox"));
    expect(give()).toHaveProperty("disabled", true);
    const reason = screen.getByLabelText(say("frame.why-it-is-safe-for"));
    fireEvent.change(reason, { target: { value: "   " } });
    expect(give()).toHaveProperty("disabled", true);
    fireEvent.change(reason, { target: { value: "  agreed with the surgeon " } });
    expect(give()).toHaveProperty("disabled", false);
    fireEvent.click(screen.getByRole("checkbox"));
    expect(give()).toHaveProperty("disabled", true);
    fireEvent.click(screen.getByRole("checkbox"));
    fireEvent.click(give());
    expect(onPick).toHaveBeenCalledWith("agreed with the surgeon");
  });
});

describe("red flags", () => {
  const flags = [
    { id: "night", words: "Night pain", sameDay: true },
    { id: "saddle", words: "Numb between the legs", emergency: true },
  ] as unknown as Library["dangerSigns"];

  function Asking(props: { tell: (signs: string[], asked: boolean | null) => void }) {
    const [state, setState] = useState<{ signs: string[]; asked: boolean | null }>({
      signs: [],
      asked: null,
    });
    return (
      <RedFlags
        flags={flags}
        {...state}
        onChange={(signs, asked) => {
          props.tell(signs, asked);
          setState({ signs, asked });
        }}
      >
        ask
      </RedFlags>
    );
  }

  it("none of them and one of them exclude each other; taking the last back opens the question again", () => {
    const tell = vi.fn();
    show(<Asking tell={tell} />);
    const tick = (name: RegExp | string) => fireEvent.click(screen.getByRole("checkbox", { name }));
    tick(say("frame.asked-none-of-these"));
    tick(/Night pain/);
    expect(screen.getByRole("checkbox", { name: say("frame.asked-none-of-these") })).toHaveProperty(
      "checked",
      false,
    );
    tick(/Numb/);
    tick(/Night pain/);
    tick(/Numb/);
    expect(tell.mock.calls).toEqual([
      [[], true],
      [["night"], true],
      [["night", "saddle"], true],
      [["saddle"], true],
      [[], null],
    ]);
  });

  it("how soon is said beside each", () => {
    show(<Asking tell={() => {}} />);
    expect(screen.getByText(say("frame.same-day"))).toBeTruthy();
    expect(screen.getByText(say("frame.emergency-care"))).toBeTruthy();
  });

  it("nothing ticked and nothing pressed is no answer", () => {
    expect(flagsAnswered([], null)).toBe(false);
    expect(flagsAnswered([], false)).toBe(false);
    expect(flagsAnswered([], true)).toBe(true);
    expect(flagsAnswered(["night"], null)).toBe(true);
  });
});
