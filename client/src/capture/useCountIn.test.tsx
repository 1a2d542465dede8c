import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useCountIn } from "./useCountIn";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe("the count-in before a hold", () => {
  it("begins at once without a delay", () => {
    const begin = vi.fn();
    const { result } = renderHook(() => useCountIn(0, begin));
    act(() => result.current.press());
    expect(begin).toHaveBeenCalledOnce();
  });

  it("counts the seconds down and then begins once", () => {
    const begin = vi.fn();
    const { result } = renderHook(() => useCountIn(3, begin));
    act(() => result.current.press());
    expect(result.current.left).toBe(3);
    act(() => vi.advanceTimersByTime(1000));
    act(() => vi.advanceTimersByTime(1000));
    expect(result.current.left).toBe(1);
    expect(begin).not.toHaveBeenCalled();
    act(() => vi.advanceTimersByTime(1000));
    expect(begin).toHaveBeenCalledOnce();
    expect(result.current.left).toBeNull();
  });

  it("is called off by a second press", () => {
    const begin = vi.fn();
    const { result } = renderHook(() => useCountIn(3, begin));
    act(() => result.current.press());
    act(() => vi.advanceTimersByTime(1000));
    act(() => result.current.press());
    act(() => vi.advanceTimersByTime(5000));
    expect(begin).not.toHaveBeenCalled();
    expect(result.current.left).toBeNull();
  });
});
