import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Button } from "react-aria-components";
import styled, { useTheme } from "styled-components";
import { useFigure } from "../api/queries";
import type { Fault, Figure, Side } from "../api/types";
import { FigureShapes } from "../figure/FigureView";
import { breaksRep } from "./breaksRep";
import { placesOf, type Chip } from "./faultPlaces";
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

/** Faults round a drawing that is there already. */
interface OverFigure extends Omit<Props, "rungId" | "side" | "frame"> {
  figure: Figure | undefined;
  failed?: boolean;
  /** What moves in the drawing's place: then no line joins a fault to where it shows. */
  moving?: React.ReactNode;
}

/** A finger that rests this long on a fault says that it persists. */
const longPressMs = 550;

const Stage = styled.div<{ $low: boolean }>`
  position: relative;
  width: 100%;
  height: 100%;
  min-height: ${({ $low }) => ($low ? 300 : 340)}px;
`;

/** A solid edge: the rep is not clean. A dotted one: coach it. */
const ChipButton = styled(Button)<{ $marked: boolean; $breaks: boolean }>`
  position: absolute;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  padding: 0 ${({ theme }) => theme.space(2)};
  border: 1px solid ${({ theme }) => theme.colour.rule};
  border-inline-start: 6px ${({ $breaks }) => ($breaks ? "solid" : "dotted")}
    ${({ theme }) => theme.colour.clay};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $marked }) => ($marked ? theme.colour.clay : theme.colour.sheet)};
  color: ${({ theme, $marked }) => ($marked ? theme.colour.sheet : theme.colour.ink)};
  font: 500 0.9375rem/1.15 ${({ theme }) => theme.font.text};
  text-align: start;
  cursor: pointer;
  touch-action: manipulation;
  kbd {
    font: 500 0.8125rem/1 ${({ theme }) => theme.font.text};
    opacity: 0.85;
  }
  &[data-pressed] {
    transform: scale(0.97);
  }
  @media (max-width: 37.5em) {
    padding: 0 ${({ theme }) => theme.space(1)};
    font-size: 0.875rem;
    line-height: 1.05;
  }
`;

/** The drawing with the faults round it, each joined to the place on the body where it shows. */
export function FaultStage(props: Props) {
  const { data: figure, isError } = useFigure(props.rungId, props.side, props.frame);
  return <FaultStageOver {...props} figure={figure} failed={isError} />;
}

/** The same with a drawing of one's own. */
export function FaultStageOver(props: OverFigure) {
  const { figure, failed } = props;
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
      {!figure && failed && <Listed {...props} />}
    </Stage>
  );
}

const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  grid-auto-rows: 52px;
  gap: ${({ theme }) => theme.space(2)};
  > * {
    position: static;
  }
`;

/** Without the drawing the faults stand in a list: marking them does not wait for it. */
const Listed = (props: OverFigure) => (
  <List>
    {props.faults.map((fault) => (
      <FaultChip key={fault.code} fault={fault} {...props} />
    ))}
  </List>
);

function Placed(props: OverFigure & { figure: Figure; size: { width: number; height: number } }) {
  const { colour, font } = useTheme();
  const { figure, size, faults } = props;
  const { chips, leaders, letters, origin, scale, height } = placesOf(faults, figure, size, letterSize());
  return (
    <>
      {height > size.height && <div style={{ height }} />}
      <svg
        width={size.width}
        height={height}
        style={{ position: "absolute", inset: 0 }}
        role="img"
        aria-label={figure.words}
      >
        <g transform={`translate(${origin.x} ${origin.y}) scale(${scale})`}>
          {props.moving ?? <FigureShapes figure={figure} />}
        </g>
        {(props.moving ? [] : leaders).map((l) => {
          const marked = props.counts.has(l.code);
          return (
            <g key={l.code}>
              <path
                d={`M${l.from.x} ${l.from.y}L${l.bend.x} ${l.bend.y}L${l.to.x} ${l.to.y}`}
                fill="none"
                stroke={colour.clay}
                strokeWidth={marked ? 2.5 : 1}
                opacity={marked ? 1 : 0.6}
              />
              <circle cx={l.to.x} cy={l.to.y} r={marked ? 5 : 4} fill={colour.clay} stroke={colour.sheet} />
            </g>
          );
        })}
        {(props.moving ? [] : letters).map((l) => (
          <g key={l.keys} transform={`translate(${l.at.x} ${l.at.y})`}>
            <rect
              x={-4 - l.keys.length * 4}
              y={-10}
              width={8 + l.keys.length * 8}
              height={20}
              rx={10}
              fill={colour.sheet}
              stroke={colour.clay}
            />
            <text
              y={5}
              fontSize={14}
              fontWeight={600}
              textAnchor="middle"
              fill={colour.clay}
              fontFamily={font.text}
            >
              {l.keys}
            </text>
          </g>
        ))}
      </svg>
      {chips.map((chip) => (
        <FaultChip
          key={chip.fault.code}
          fault={chip.fault}
          at={chip}
          counts={props.counts}
          persisting={props.persisting}
          onMark={props.onMark}
        />
      ))}
    </>
  );
}

/** How much larger letters are than browsers have them by themselves. */
const letterSize = () => parseFloat(getComputedStyle(document.documentElement).fontSize) / 16 || 1;

function FaultChip(
  props: Pick<OverFigure, "counts" | "persisting" | "onMark"> & { fault: Fault; at?: Chip },
) {
  const { fault } = props;
  const count = props.counts.get(fault.code) ?? 0;
  const persists = props.persisting.has(fault.code);
  const press = useLongPress(
    () => props.onMark(fault.code),
    () => props.onMark(fault.code, true),
  );
  const times = count > 0 ? say("capture.marked-count-times", { count }) : "";
  return (
    <ChipButton
      $marked={count > 0}
      $breaks={breaksRep(fault)}
      style={props.at && placeOf(props.at)}
      aria-label={`${fault.name}${times}${persists ? say("capture.persisting") : ""}`}
      aria-description={breaksRep(fault) ? say("capture.breaks-the-rep") : undefined}
      {...press}
    >
      <span>{fault.name}</span>
      <kbd aria-hidden>{persists ? say("capture.stays") : count > 0 ? `×${count}` : fault.key}</kbd>
    </ChipButton>
  );
}

const placeOf = ({ left, top, width, height }: Chip) => ({ left, top, width, height });

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
