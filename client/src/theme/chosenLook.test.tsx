import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { deviceSays } from "../given/browser";
import { choose, useTokens } from "./chosenLook";

const dark = "(prefers-color-scheme: dark)";

afterEach(() => {
  cleanup();
  deviceSays(dark, false);
  deviceSays("print", false);
  choose("device");
});

describe("light or dark", () => {
  it("is as the device says, while it says it", () => {
    const { result } = renderHook(useTokens);
    expect(result.current.scheme).toBe("light");
    act(() => deviceSays(dark, true));
    expect(result.current.scheme).toBe("dark");
  });

  it("is as somebody chose, whatever the device says, and is kept on it", () => {
    const { result } = renderHook(useTokens);
    act(() => choose("dark"));
    expect(result.current.scheme).toBe("dark");
    act(() => deviceSays(dark, true));
    act(() => choose("light"));
    expect(result.current.scheme).toBe("light");
    expect(localStorage.getItem("palaestra-look")).toBe("light");
    act(() => choose("device"));
    expect(result.current.scheme).toBe("dark");
    expect(localStorage.getItem("palaestra-look")).toBeNull();
  });

  it("is the device's where it forces its colours", () => {
    const { result } = renderHook(useTokens);
    act(() => choose("dark"));
    act(() => deviceSays("(forced-colors: active)", true));
    expect(result.current.scheme).toBe("light");
    act(() => deviceSays(dark, true));
    act(() => choose("light"));
    expect(result.current.scheme).toBe("dark");
    act(() => deviceSays("(forced-colors: active)", false));
    expect(result.current.scheme).toBe("light");
  });

  it("is light on paper", () => {
    const { result } = renderHook(useTokens);
    act(() => choose("dark"));
    act(() => deviceSays("print", true));
    expect(result.current.scheme).toBe("light");
  });
});
