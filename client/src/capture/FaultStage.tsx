import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Button } from "react-aria-components";
import styled, { useTheme } from "styled-components";
import { useFigure } from "../api/queries";
import type { Fault, Figure, Side } from "../api/types";
import { FigureShapes } from "../figure/FigureView";
import { say } from "../words/say";

interface Props {
  rungId: string;
  side: Side;
  frame: "start" | "end";
  faults: Fault[];
  /** How often each fault has been marked in this trial, by code. */
  counts: Map<string, number>;
  /** Faults that stay, by code. */
  persisting: Set<string>;
  onMark: (code: string, persists?: boolean) => void;
  /** Something else needs a part of the height: a trace. */
  low?: boolean;
}

/** A finger that rests this long on a fault says that it persists. */
const longPressMs = 550;

const chipHeight = 60;
const gap = 8;
const smallestSlot = 132;

const Stage = styled.div<{ $low: boolean }>`
  position: relative;
  width: 100%;
  height: 100%;
  min-height: ${({ $low }) => ($low ? 322 : 380)}px;
`;

const Chip = styled(Button)<{ $marked: boolean }>`
  position: absolute;
  height: ${chipHeight}px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  padding: 0 ${({ theme }) => theme.space(2)} 0 ${({ theme }) => theme.space(3)};
  border: 1px solid ${({ theme }) => theme.colour.rule};
  border-left: 5px solid ${({ theme }) => theme.colour.clay};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $marked }) => ($marked ? theme.colour.clay : theme.colour.sheet)};
  color: ${({ theme, $marked }) => ($marked ? theme.colour.sheet : theme.colour.ink)};
  font: 500 15px/1.15 ${({ theme }) => theme.font.text};
  text-align: left;
  cursor: pointer;
  touch-action: manipulation;
  kbd {
    font: 500 13px/1 ${({ theme }) => theme.font.text};
    opacity: 0.85;
  }
  &[data-pressed] {
    transform: scale(0.97);
  }
`;

/** The drawing with the faults round it, each joined to the place on the body where it shows. */
export function FaultStage(props: Props) {
  const { data: figure } = useFigure(props.rungId, props.side, props.frame);
  const stage = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = stage.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return (
    <Stage
      ref={stage}
      $low={props.low === true}
      role="group"
      aria-label={say("capture.faults-by-where-they-show")}
    >
      {figure && size.width > 0 && <Placed {...props} figure={figure} size={size} />}
    </Stage>
  );
}

export interface Placement {
  fault: Fault;
  left: number;
  top: number;
  width: number;
  /** Where the line leaves the chip, and where it ends on the body. */
  from: { x: number; y: number };
  to: { x: number; y: number };
}

function Placed(props: Props & { figure: Figure; size: { width: number; height: number } }) {
  const { colour } = useTheme();
  const { figure, size, faults } = props;
  const rows = rowsFor(faults, figure, size.width);
  const topHeight = rows.top.length * (chipHeight + gap);
  const bottomHeight = rows.bottom.length * (chipHeight + gap);
  const room = { top: topHeight + 14, height: size.height - topHeight - bottomHeight - 28 };
  const scale = Math.min(size.width / figure.width, room.height / figure.height);
  const origin = {
    x: (size.width - figure.width * scale) / 2 - figure.left * scale,
    y: room.top + (room.height - figure.height * scale) / 2 - figure.top * scale,
  };
  const anchor = (fault: Fault) => {
    const at = figure.anchors.find((a) => a.region === fault.region)?.at ?? { x: 0, y: 0 };
    return { x: origin.x + at.x * scale, y: origin.y + at.y * scale };
  };
  const placed: Placement[] = [
    ...rows.top.flatMap((row, i) => placeRow(row, i * (chipHeight + gap), true, size.width, anchor)),
    ...rows.bottom.flatMap((row, i) =>
      placeRow(row, size.height - bottomHeight + gap + i * (chipHeight + gap), false, size.width, anchor),
    ),
  ];
  return (
    <>
      <svg
        width={size.width}
        height={size.height}
        style={{ position: "absolute", inset: 0 }}
        role="img"
        aria-label={figure.words}
      >
        <g transform={`translate(${origin.x} ${origin.y}) scale(${scale})`}>
          <FigureShapes figure={figure} />
        </g>
        {placed.map((p) => (
          <g key={p.fault.code}>
            <line
              x1={p.from.x}
              y1={p.from.y}
              x2={p.to.x}
              y2={p.to.y}
              stroke={colour.clay}
              strokeWidth={1}
              opacity={0.55}
            />
            <circle cx={p.to.x} cy={p.to.y} r={3.5} fill={colour.clay} stroke={colour.sheet} />
          </g>
        ))}
      </svg>
      {placed.map((p) => (
        <FaultChip
          key={p.fault.code}
          placement={p}
          count={props.counts.get(p.fault.code) ?? 0}
          persists={props.persisting.has(p.fault.code)}
          onMark={props.onMark}
        />
      ))}
    </>
  );
}

function FaultChip(props: {
  placement: Placement;
  count: number;
  persists: boolean;
  onMark: (code: string, persists?: boolean) => void;
}) {
  const { fault, left, top, width } = props.placement;
  const press = useLongPress(
    () => props.onMark(fault.code),
    () => props.onMark(fault.code, true),
  );
  const times = props.count > 0 ? say("capture.marked-count-times", { count: props.count }) : "";
  return (
    <Chip
      $marked={props.count > 0}
      style={{ left, top, width }}
      aria-label={`${fault.name}${times}${props.persists ? say("capture.persisting") : ""}`}
      {...press}
    >
      <span>{fault.name}</span>
      <kbd aria-hidden>
        {props.persists ? say("capture.stays") : props.count > 0 ? `×${props.count}` : fault.key}
      </kbd>
    </Chip>
  );
}

/** Short: when the finger leaves. Long: as soon as it has rested long enough, and then not again when it leaves. */
function useLongPress(onShort: () => void, onLong: () => void) {
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const wasLong = useRef(false);
  const stop = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
  };
  useEffect(() => stop, []);
  return {
    onPressStart: () => {
      wasLong.current = false;
      stop();
      timer.current = setTimeout(() => {
        wasLong.current = true;
        onLong();
      }, longPressMs);
    },
    onPressEnd: stop,
    onPress: () => {
      if (!wasLong.current) onShort();
    },
  };
}

/** The lowest regions go below, as many as one row holds; the others above, in as many rows as the width needs. */
export function rowsFor(faults: Fault[], figure: Figure, width: number) {
  const y = (fault: Fault) => figure.anchors.find((a) => a.region === fault.region)?.at.y ?? 0;
  const lowestFirst = [...faults].sort((a, b) => y(b) - y(a));
  const perRow = Math.max(2, Math.floor(width / smallestSlot));
  const below = Math.min(perRow, Math.ceil(faults.length / 2));
  return { top: split(lowestFirst.slice(below), perRow), bottom: split(lowestFirst.slice(0, below), perRow) };
}

function split<T>(list: T[], perRow: number): T[][] {
  const rows = Math.ceil(list.length / perRow);
  const size = Math.ceil(list.length / Math.max(1, rows));
  return Array.from({ length: rows }, (_, i) => list.slice(i * size, (i + 1) * size));
}

export function placeRow(
  row: Fault[],
  top: number,
  above: boolean,
  width: number,
  anchor: (fault: Fault) => { x: number; y: number },
): Placement[] {
  const slot = width / row.length;
  const chip = Math.min(slot - gap, 190);
  return [...row]
    .sort((a, b) => anchor(a).x - anchor(b).x)
    .map((fault, i) => {
      const centre = (i + 0.5) * slot;
      return {
        fault,
        left: centre - chip / 2,
        top,
        width: chip,
        from: { x: centre, y: above ? top + chipHeight : top },
        to: anchor(fault),
      };
    });
}
