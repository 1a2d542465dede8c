import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

class Source {
  static readonly CLOSED = 2;
  static all: Source[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((message: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  readyState = 1;
  constructor(readonly address: string) {
    Source.all.push(this);
  }
}

describe("news of visits", () => {
  beforeEach(() => {
    Source.all = [];
    vi.useFakeTimers();
    vi.stubGlobal("EventSource", Source);
    vi.stubGlobal("BroadcastChannel", undefined);
    vi.resetModules();
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("come over one stream, to everybody who listens", async () => {
    const { onNews } = await import("./live");
    const heard: (string | null)[] = [];
    onNews((visit) => heard.push(visit));
    const leave = onNews((visit) => heard.push(visit));
    expect(Source.all.map((source) => source.address)).toEqual(["/api/live"]);
    Source.all[0]!.onmessage!({ data: `{"visitId":"a"}` });
    leave();
    Source.all[0]!.onmessage!({ data: `{"visitId":"b"}` });
    expect(heard).toEqual(["a", "a", "b"]);
  });

  it("are asked for again after a refusal, and then anything may be new", async () => {
    const { onNews } = await import("./live");
    const heard: (string | null)[] = [];
    onNews((visit) => heard.push(visit));
    const [first] = Source.all;
    first!.onerror!();
    vi.advanceTimersByTime(60_000);
    expect(Source.all).toHaveLength(1);
    first!.readyState = Source.CLOSED;
    first!.onerror!();
    vi.advanceTimersByTime(5000);
    expect(Source.all).toHaveLength(2);
    Source.all[1]!.onopen!();
    expect(heard).toEqual([null]);
  });
});
