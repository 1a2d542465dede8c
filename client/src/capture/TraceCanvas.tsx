import { useEffect, useRef, type RefObject } from "react";
import styled, { useTheme } from "styled-components";
import { clock } from "./useCapture";
import type { InstrumentSetup } from "../api/types";
import { shownSeconds, type Loss, type Samples } from "./useTrace";

/** Samples come in batches a little late: the right edge runs behind by this much, so that the line grows evenly. */
const behindMs = 60;

const Paper = styled.canvas`
  display: block;
  width: 100%;
  height: 78px;
  background: ${({ theme }) => theme.colour.sheet};
  outline: 1px solid ${({ theme }) => theme.colour.rule};
`;

interface Props {
  samples: RefObject<Samples>;
  setup: InstrumentSetup;
  neutral: number[] | null;
  losses: Loss[];
}

/** The last seconds of a device around its neutral, with the band, drawn with every frame of the screen. */
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
  return <Paper ref={canvas} aria-hidden />;
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
  const x = (at: number) => width - ((now - at) / 1000 / shownSeconds) * width;
  // In parts of the band, so that all channels share one lane; twice the band is in view, what goes beyond runs along the edge.
  const y = (parts: number) => height / 2 - Math.max(-1, Math.min(1, parts / 2)) * (height / 2 - 2);
  band(pen, colour, width, y(1), y(-1), y(0), props.neutral !== null);
  pen.fillStyle = colour.clay;
  for (const loss of props.losses) {
    pen.fillRect(x(loss.onset), 0, Math.max(2, x(loss.end ?? now) - x(loss.onset)), 5);
  }
  const looks = [
    { tone: colour.ink, dash: [] },
    { tone: colour.ochre, dash: [] },
    { tone: colour.slate, dash: [4, 3] },
  ];
  let from = 6;
  props.setup.channels.forEach((channel, i) => {
    const level = props.neutral?.[i] ?? meanOf(props.samples.current, i);
    const look = looks[i % looks.length]!;
    pen.setLineDash(look.dash);
    line(pen, props.samples.current, i, x, (value) => y((value - level) / channel.band), look.tone);
    from = label(pen, channel.name, from, height - 7, look.tone);
    pen.setLineDash([]);
  });
}

/** A piece of the line with its name; where the next one may stand. */
function label(pen: CanvasRenderingContext2D, name: string, from: number, y: number, tone: string) {
  pen.strokeStyle = tone;
  pen.lineWidth = 3;
  pen.beginPath();
  pen.moveTo(from, y - 4);
  pen.lineTo(from + 22, y - 4);
  pen.stroke();
  pen.fillStyle = tone;
  pen.font = "600 13px sans-serif";
  pen.fillText(name, from + 27, y);
  return from + 27 + pen.measureText(name).width + 16;
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
