import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { Instrument, TraceEntry } from "../api/types";
import { useLiveSettings } from "../capture/liveSettings";
import type { LiveTrialState } from "../capture/liveTrial";
import { clock } from "../capture/useCapture";
import { useInstruments } from "../capture/useWatched";

export const useTraces = (visitId: string) =>
  useQuery({
    queryKey: keys.traces(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/traces", { params: { path: { visitId } } })),
  });

/** The server remembers the last twenty minutes of a device. */
const rememberedMs = 20 * 60_000;

/** Trials whose trace was asked for from this page: once each, whether it came or not. */
const asked = new Set<string>();

/** A trial that was opened again and went on has outgrown its trace. */
const covers = (trace: TraceEntry, endedAt: number) =>
  trace.source === "file" || Date.parse(trace.startedAt) + 1000 * (trace.seconds + 1) >= endedAt;

/** Keeps the trace of a trial that ended with an instrument, by itself; again where the server has not heard of its end yet. */
export function useKeptTrace(trial: LiveTrialState, visitId: string) {
  const queries = useQueryClient();
  const traces = useTraces(visitId);
  const { instrument } = useLiveSettings();
  const { data: devices } = useInstruments();
  const device = devices?.find((d) => d.device === instrument);
  const kind = device?.setup.id as Instrument | undefined;
  const keep = useMutation({
    mutationFn: (name: string) =>
      got(
        api.POST("/api/visits/{visitId}/trials/{trialId}/traces", {
          params: { path: { visitId, trialId: trial.trialId } },
          body: { device: name, now: new Date(clock.now()).toISOString() },
        }),
      ),
    retry: 4,
    retryDelay: 1500,
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.traces(visitId) }),
  });
  const wanted =
    kind !== undefined &&
    traces.data !== undefined &&
    trial.endedAt !== null &&
    clock.now() - trial.endedAt < rememberedMs &&
    trial.instruments.includes(kind) &&
    !traces.data.some(
      (t) => t.trialId === trial.trialId && t.instrument === kind && covers(t, trial.endedAt ?? 0),
    );
  const { mutate } = keep;
  useEffect(() => {
    const name = `${trial.trialId} ${kind} ${trial.endedAt}`;
    if (!wanted || !device || asked.has(name)) return;
    asked.add(name);
    mutate(device.device);
  }, [wanted, device, kind, trial.trialId, trial.endedAt, mutate]);
  return keep;
}
