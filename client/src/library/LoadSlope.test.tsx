import { cleanup, render, screen } from "@testing-library/react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { ThemeProvider } from "styled-components";
import { afterEach, describe, expect, it } from "vitest";
import type { Library, RungPage } from "../api/types";
import { tokens } from "../theme/tokens";
import { LoadSlope } from "./LoadSlope";

const library = {
  ladders: [
    {
      id: "B",
      name: "Limb lowering",
      rungs: [
        { id: "B1", name: "Foot float" },
        { id: "B5", name: "Heel tap" },
        { id: "B6", name: "Leg reach" },
      ],
    },
  ],
} as unknown as Library;

const page = {
  rungId: "B6",
  presentRungId: "B5",
  slope: [
    { rungId: "B1", newtonMetres: 24.4, reason: null },
    { rungId: "B5", newtonMetres: 38, reason: null },
    { rungId: "B6", newtonMetres: 50.6, reason: null },
  ],
} as unknown as RungPage;

afterEach(cleanup);

const show = (now: number | null, address = "/library/rungs/B6") =>
  render(
    <ThemeProvider theme={tokens}>
      <RouterProvider
        router={createMemoryRouter(
          [{ path: "*", element: <LoadSlope page={page} library={library} now={now} /> }],
          { initialEntries: [address] },
        )}
      />
    </ThemeProvider>,
  );

describe("the load slope", () => {
  it("stands like the ladder: the hardest on top, the shown rung and the present one marked in words", () => {
    show(null);
    const steps = screen.getAllByRole("link");
    expect(steps.map((step) => step.textContent)).toEqual([
      expect.stringMatching(/^Leg reach.*51$/),
      expect.stringMatching(/^Heel tap · in the plan.*38$/),
      expect.stringMatching(/^Foot float.*24$/),
    ]);
    expect(steps[0]!.getAttribute("aria-current")).toBe("page");
  });

  it("moves the shown rung with the sliders and leaves the others", () => {
    show(31.2);
    const values = screen.getAllByRole("status").map((value) => value.textContent);
    expect(values).toEqual(["31", "38", "24"]);
  });

  it("keeps the open client on the way to another rung", () => {
    show(null, "/library/rungs/B6?episode=e1");
    expect(screen.getByRole("link", { name: /Foot float/ }).getAttribute("href")).toBe(
      "/library/rungs/B1?episode=e1",
    );
  });
});
