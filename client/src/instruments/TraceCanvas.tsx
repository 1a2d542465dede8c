import { useEffect, useRef, type RefObject } from "react";
import { useTheme } from "styled-components";
import { clock } from "../capture/useCapture";
import type { InstrumentSetup } from "../api/types";
import { shownSeconds, type Loss, type Samples } from "./useTrace";

/** Samples come in batches a little late: the right edge runs behind by this much, so that the line grows evenly. */
const behindMs = 80;

interface Props {
  samples: RefObject<Samples>;
  setup: InstrumentSetup;
  neutral: number[] | null;
  losses: Loss[];
}

/** The last seconds of a device, each channel around its neutral with its band, drawn with every frame of the screen. */
export function TraceCanvas(props: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(props);
  const theme = useTheme();
  useEffect(() => {
    latest.current = props;
  });
  useEffect(() => {
    let frame = requestAnimationFrame(function draw() {
      if (canvas.current) paint(canvas.current, latest.current, theme.colour);
      frame = requestAnimationFrame(draw);
    });
    return () => cancelAnimationFrame(frame);
  }, [theme]);
  return <canvas ref={canvas} aria-hidden style={{ width: "100%", height: "100%", display: "block" }} />;
}

type Colours = ReturnType<typeof useTheme>["colour"];

function paint(canvas: HTMLCanvasElement, props: Props, colour: Colours) {
  const pen = canvas.getContext("2d");
  if (!pen) return;
  const scale = window.devicePixelRatio;
  const width = canvas.clientWidth;
  const height = canvas.clientHeight;
  if (canvas.width !== Math.round(width * scale) || canvas.height !== Math.round(height * scale)) {
    canvas.width = Math.round(width * scale);
    canvas.height = Math.round(height * scale);
  }
  pen.setTransform(scale, 0, 0, scale, 0, 0);
  pen.clearRect(0, 0, width, height);
  const now = clock.now() - behindMs;
  const each = height / props.setup.channels.length;
  const x = (at: number) => width - ((now - at) / 1000 / shownSeconds) * width;
  props.setup.channels.forEach((channel, i) => {
    const level = props.neutral?.[i] ?? meanOf(props.samples.current, i);
    // Twice the band is in view; what goes beyond runs along the edge.
    const y = (away: number) =>
      each * (i + 0.5) - Math.max(-1, Math.min(1, away / (2 * channel.band))) * (each / 2 - 2);
    band(pen, colour, width, y(channel.band), y(-channel.band), y(0), props.neutral !== null);
    for (const loss of props.losses.filter((l) => l.channel === channel.channel)) {
      pen.fillStyle = colour.clay;
      pen.fillRect(x(loss.onset), each * i + 1, Math.max(2, x(loss.end ?? now) - x(loss.onset)), 4);
    }
    line(pen, props.samples.current, i, x, (value) => y(value - level), colour.ink);
    pen.fillStyle = colour.grey;
    pen.font = "600 13px sans-serif";
    pen.fillText(channel.name, 4, each * i + 14);
  });
}

function band(
  pen: CanvasRenderingContext2D,
  colour: Colours,
  width: number,
  top: number,
  bottom: number,
  middle: number,
  taken: boolean,
) {
  pen.fillStyle = taken ? colour.wash : colour.paper;
  pen.fillRect(0, top, width, bottom - top);
  pen.strokeStyle = colour.sand;
  pen.setLineDash(taken ? [] : [6, 6]);
  pen.lineWidth = 1;
  for (const at of [top, middle, bottom]) {
    pen.beginPath();
    pen.moveTo(0, at);
    pen.lineTo(width, at);
    pen.stroke();
  }
  pen.setLineDash([]);
}

function line(
  pen: CanvasRenderingContext2D,
  samples: Samples,
  channel: number,
  x: (at: number) => number,
  y: (value: number) => number,
  tone: string,
) {
  pen.strokeStyle = tone;
  pen.lineWidth = 2;
  pen.beginPath();
  let open = false;
  for (let i = 0; i < samples.at.length; i++) {
    const value = samples.values[i]?.[channel];
    const at = x(samples.at[i]!);
    if (value === undefined || at < -5) {
      open = false;
      continue;
    }
    if (open) pen.lineTo(at, y(value));
    else pen.moveTo(at, y(value));
    open = true;
  }
  pen.stroke();
}

/** Before neutral is taken the line is shown around what it does now. */
function meanOf(samples: Samples, channel: number) {
  const last = samples.values.slice(-100).flatMap((v) => (v ? [v[channel] ?? 0] : []));
  return last.length === 0 ? 0 : last.reduce((sum, v) => sum + v, 0) / last.length;
}
