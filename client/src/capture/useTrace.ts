import { useEffect, useMemo, useRef, useState } from "react";
import { clock } from "./useCapture";
import type { LiveLoss, LivePart } from "../api/types";

/** Seconds that are kept to be drawn. */
export const shownSeconds = 12;

/** A loss with its moments by the tablet's clock, milliseconds since 1970. */
export interface Loss {
  channel: LiveLoss["channel"];
  fault: string;
  onset: number;
  end: number | null;
  excursion: number;
}

/** A rep with its moments by the tablet's clock, milliseconds since 1970. */
export interface SeenRep {
  start: number;
  top: number;
  leaves: number;
  end: number;
}

export interface TraceState {
  connected: boolean;
  battery: number | null;
  neutral: number[] | null;
  lost: boolean;
  losses: Loss[];
  reps: SeenRep[];
}

/** Samples by the tablet's clock; read by whoever draws, without asking React. */
export interface Samples {
  at: number[];
  values: (number[] | null)[];
}

const nothing: TraceState = {
  connected: false,
  battery: null,
  neutral: null,
  lost: false,
  losses: [],
  reps: [],
};

/** What a device sends, from now on; nothing without one. Its times are turned into those of this tablet. */
export function useTrace(device: string | null, rate: number) {
  const samples = useRef<Samples>({ at: [], values: [] });
  const [state, setState] = useState(nothing);
  useEffect(() => {
    if (device === null) return;
    const source = new EventSource(`/api/instruments/${encodeURIComponent(device)}/stream`);
    const ahead = new Ahead();
    samples.current = { at: [], values: [] };
    source.onmessage = (message) => {
      const part = JSON.parse(message.data as string) as LivePart;
      const offset = ahead.of(Date.parse(part.now), clock.now());
      append(samples.current, part, offset, rate);
      setState((was) => next(was, part, offset));
    };
    source.onerror = () => setState((was) => ({ ...was, connected: false, neutral: null, lost: false }));
    return () => {
      source.close();
      setState(nothing);
    };
  }, [device, rate]);
  return useMemo(() => ({ samples, state }), [state]);
}

/** How far the tablet's clock is ahead of the server's: what is on its way can only look older, never younger. */
export class Ahead {
  private least = Infinity;

  of(server: number, tablet: number) {
    this.least = Math.min(this.least, tablet - server);
    return this.least;
  }
}

export function append(samples: Samples, part: LivePart, offset: number, rate: number) {
  const from = Date.parse(part.at) + offset;
  part.values.forEach((value, i) => {
    samples.at.push(from + (1000 * i) / rate);
    samples.values.push(value);
  });
  const most = Math.ceil(shownSeconds * rate * 1.5);
  if (samples.at.length > 2 * most) {
    samples.at.splice(0, samples.at.length - most);
    samples.values.splice(0, samples.values.length - most);
  }
}

/** The same state where nothing in it changed, so that a batch of samples alone draws nothing anew. */
export function next(was: TraceState, part: LivePart, offset: number): TraceState {
  const at = (moment: string) => Math.round(Date.parse(moment) + offset);
  // Without a neutral nothing new is told: what was seen before the connection went can still be kept.
  const losses =
    part.losses && part.neutral
      ? part.losses.map((l) => ({
          channel: l.channel,
          fault: l.fault,
          onset: at(l.onset),
          end: l.end ? at(l.end) : null,
          excursion: l.excursion,
        }))
      : was.losses;
  const reps =
    part.reps && part.neutral
      ? part.reps.map((r) => ({ start: at(r.start), top: at(r.top), leaves: at(r.leaves), end: at(r.end) }))
      : was.reps;
  const same =
    losses === was.losses &&
    reps === was.reps &&
    part.connected === was.connected &&
    part.battery === was.battery &&
    part.lost === was.lost &&
    part.neutral?.join() === was.neutral?.join();
  return same
    ? was
    : {
        connected: part.connected,
        battery: part.battery,
        neutral: part.neutral,
        lost: part.lost,
        losses,
        reps,
      };
}
