import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { Instrument } from "../api/types";
import { useLiveSettings } from "./liveSettings";
import type { LiveTrialState } from "./liveTrial";
import { signalLost } from "./signals";
import type { RecordEvent } from "./useCapture";
import { useTrace } from "./useTrace";

export const useInstruments = () =>
  useQuery({
    queryKey: keys.instruments,
    queryFn: () => got(api.GET("/api/instruments")),
    // Where there are none it is enough to look now and then.
    refetchInterval: ({ state }) => (state.data?.length ? 3000 : 15_000),
  });

export type Watched = NonNullable<ReturnType<typeof useWatched>>;

/** The instrument this tablet watches during a trial: its trace, its tone, and the note that it was used; null where none is picked. */
export function useWatched(trial: LiveTrialState, record: RecordEvent) {
  const { instrument, lossTone } = useLiveSettings();
  const { data } = useInstruments();
  const device = data?.find((d) => d.device === instrument) ?? null;
  const { samples, state } = useTrace(device?.device ?? null, device?.setup.rate ?? 1);
  const wasLost = useRef(false);
  useEffect(() => {
    if (state.lost && !wasLost.current && lossTone) signalLost();
    wasLost.current = state.lost;
  }, [state.lost, lossTone]);
  const kind = device ? (device.setup.id as Instrument) : null;
  const note = kind !== null && state.neutral !== null && !trial.instruments.includes(kind);
  useEffect(() => {
    if (note && kind) record(trial.trialId, "instrument-used", { instrument: kind });
  }, [note, kind, record, trial.trialId]);
  return instrument === null ? null : { name: instrument, device, samples, state };
}
