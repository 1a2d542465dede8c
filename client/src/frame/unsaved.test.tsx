import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { createMemoryRouter, Link, Outlet, RouterProvider } from "react-router";
import { ThemeProvider } from "styled-components";
import { afterEach, describe, expect, it } from "vitest";
import { tokens } from "../theme/tokens";
import { say } from "../words/say";
import { UnsavedDialog } from "./UnsavedDialog";
import { isUnsaved, useUnsaved } from "./unsaved";

function Form() {
  const [text, setText] = useState("");
  const stored = useUnsaved(text !== "");
  return (
    <>
      <input aria-label="Text" value={text} onChange={(e) => setText(e.target.value)} />
      <Link to="/other">Away</Link>
      <Link to="/#further">Further down</Link>
      <Link to="/?part=2">Another part</Link>
      <button onClick={stored}>Stored</button>
    </>
  );
}

function open() {
  const router = createMemoryRouter([
    {
      element: (
        <>
          <Outlet />
          <UnsavedDialog />
        </>
      ),
      children: [
        { path: "/", element: <Form /> },
        { path: "/other", element: <p>elsewhere</p> },
      ],
    },
  ]);
  render(
    <ThemeProvider theme={tokens}>
      <RouterProvider router={router} />
    </ThemeProvider>,
  );
}

const write = (text: string) => fireEvent.change(screen.getByLabelText("Text"), { target: { value: text } });
const away = () => fireEvent.click(screen.getByText("Away"));

describe("what was written and not stored", () => {
  afterEach(cleanup);

  it("is asked about before the page is left, and stays when somebody stays", () => {
    open();
    write("half a sentence");
    away();
    fireEvent.click(screen.getByRole("button", { name: say("frame.stay-here") }));
    expect(screen.getByLabelText("Text")).toHaveProperty("value", "half a sentence");
  });

  it("is asked about before another part of the page takes its place", () => {
    open();
    write("half a sentence");
    fireEvent.click(screen.getByText("Another part"));
    expect(screen.getByRole("alertdialog")).toBeTruthy();
  });

  it("goes when somebody says so", () => {
    open();
    write("half a sentence");
    away();
    fireEvent.click(screen.getByRole("button", { name: say("frame.leave-without-saving") }));
    expect(screen.getByText("elsewhere")).toBeTruthy();
    expect(isUnsaved()).toBe(false);
  });

  it("an empty form, a place further down, or what was stored asks nothing", () => {
    open();
    write("x");
    fireEvent.click(screen.getByText("Further down"));
    expect(screen.queryByRole("alertdialog")).toBeNull();
    write("");
    away();
    expect(screen.getByText("elsewhere")).toBeTruthy();
    cleanup();
    open();
    write("y");
    fireEvent.click(screen.getByText("Stored"));
    away();
    expect(screen.getByText("elsewhere")).toBeTruthy();
  });

  it("closing the tab is asked about by the browser, as long as something is open", () => {
    open();
    const leaves = () => {
      const event = new Event("beforeunload", { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(leaves()).toBe(false);
    write("half");
    expect(leaves()).toBe(true);
  });
});
