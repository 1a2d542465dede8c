import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useIdle } from "./useIdle";

const minute = 60_000;

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const idle = (minutes = 10, enabled = true) => {
  const called = vi.fn();
  renderHook(() => useIdle(minutes, enabled, called));
  return called;
};
const pass = (ms: number) => act(() => vi.advanceTimersByTime(ms));

describe("a tablet that nobody touches", () => {
  it("says so after the minutes, and not before", () => {
    const called = idle();
    pass(10 * minute - 2000);
    expect(called).not.toHaveBeenCalled();
    pass(4000);
    expect(called).toHaveBeenCalled();
  });

  it("begins anew with every touch and key, in this tab or another", () => {
    const called = idle();
    for (const touch of ["pointerdown", "keydown", "wheel"]) {
      pass(9 * minute);
      window.dispatchEvent(new Event(touch));
    }
    pass(9 * minute);
    localStorage.setItem("palaestra-touched", `${Date.now()}`);
    pass(9 * minute);
    expect(called).not.toHaveBeenCalled();
    pass(2 * minute);
    expect(called).toHaveBeenCalled();
  });

  it("says so at once when it is loaded anew after the minutes, and not when it never was open before", () => {
    const fresh = idle();
    pass(1000);
    expect(fresh).not.toHaveBeenCalled();
    cleanup();
    vi.setSystemTime(Date.now() + 11 * minute);
    expect(idle()).toHaveBeenCalledOnce();
  });

  it("says so at once when it wakes, and nothing while it is locked", () => {
    const called = idle();
    vi.setSystemTime(Date.now() + 11 * minute);
    document.dispatchEvent(new Event("visibilitychange"));
    expect(called).toHaveBeenCalledOnce();
    const locked = idle(10, false);
    pass(30 * minute);
    expect(locked).not.toHaveBeenCalled();
  });
});
