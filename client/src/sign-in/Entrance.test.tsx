import { render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { ThemeProvider } from "styled-components";
import { OrFailed } from "../frame/Failed";
import { tokens } from "../theme/tokens";
import { say } from "../words/say";
import { codeIn } from "./codeIn";

afterEach(() => vi.restoreAllMocks());

describe("the code in an address", () => {
  it.each([
    ["/", null],
    ["/clients/invitation", null],
    ["/invitation", ""],
    ["/invitation/", ""],
    ["/invitation/ABCDE-FGHJK", "ABCDE-FGHJK"],
    ["/invitation/AB%20CD", "AB CD"],
    ["/invitation/AB%", "AB%"],
  ])("%s", (path, code) => {
    expect(codeIn(path)).toBe(code);
  });
});

describe("what breaks before the router", () => {
  it("says so, and how it goes on, instead of an empty page", () => {
    vi.spyOn(console, "error").mockReturnValue();
    const Broken = () => {
      throw new Error("The part was not found.");
    };
    render(
      <ThemeProvider theme={tokens}>
        <OrFailed>
          <Broken />
        </OrFailed>
      </ThemeProvider>,
    );
    expect(screen.getByRole("alert").textContent).toContain("The part was not found.");
    expect(screen.getByRole("button", { name: say("frame.load-again") })).toBeTruthy();
    expect(screen.getByRole("link", { name: say("frame.the-day") }).getAttribute("href")).toBe("/");
  });
});
