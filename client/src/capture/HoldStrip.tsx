import { useEffect, useState } from "react";
import styled, { useTheme } from "styled-components";
import { seconds } from "../controls/words";
import { runningHold, type LiveTrialState } from "./liveTrial";
import { clock } from "./useCapture";
import { say } from "../words/say";

/** The present time, again and again while something runs: durations come from stamps, never from counting ticks. */
export function useNow(running: boolean) {
  const [now, setNow] = useState(() => clock.now());
  useEffect(() => {
    if (!running) return;
    let frame = requestAnimationFrame(function tick() {
      setNow(clock.now());
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [running]);
  return now;
}

const Box = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(1)};
  font-variant-numeric: tabular-nums;
`;

const height = 40;
const width = 1000;

/** Reps as blocks (clean solid, broken hatched) and, while a hold runs, the hold as a filling strip with its faults as notches. */
export function HoldStrip(props: { trial: LiveTrialState; faultName: (code: string) => string }) {
  const { trial } = props;
  const now = useNow(trial.holdSince !== null);
  const hold = runningHold(trial, now);
  return (
    <Box>
      {trial.target.hold > 0 && <Hold trial={trial} hold={hold} faultName={props.faultName} />}
      <Reps trial={trial} />
    </Box>
  );
}

function Hold(props: {
  trial: LiveTrialState;
  hold: ReturnType<typeof runningHold>;
  faultName: (code: string) => string;
}) {
  const { colour, font } = useTheme();
  const target = props.trial.target.hold;
  const hold = props.hold ?? { held: 0, clean: 0, marks: [] };
  const span = Math.max(target * 1.15, hold.held);
  const x = (s: number) => (s / span) * width;
  const words = props.hold
    ? say("capture.clean-clean-held", {
        clean: seconds(hold.clean),
        held:
          hold.held > hold.clean + 0.05
            ? ` ${say("capture.of-held-held", { held: seconds(hold.held) })}`
            : "",
      })
    : say("capture.hold-target-s", { target });
  return (
    <svg
      viewBox={`0 0 ${width} ${height + 24}`}
      width="100%"
      role="img"
      aria-label={words}
      style={{ display: "block" }}
    >
      <Hatch colour={colour.sea} />
      <rect x={0} y={22} width={width} height={height} fill={colour.wash} />
      <rect x={0} y={22} width={x(hold.clean)} height={height} fill={colour.sea} />
      <rect
        x={x(hold.clean)}
        y={22}
        width={x(Math.max(0, hold.held - hold.clean))}
        height={height}
        fill="url(#hatch)"
      />
      <line x1={x(target)} x2={x(target)} y1={14} y2={22 + height} stroke={colour.ink} strokeWidth={3} />
      <text x={x(target) + 8} y={22 + 26} fontSize={20} fill={colour.ink} fontFamily={font.text}>
        {say("capture.target-s", { target })}
      </text>
      {hold.marks.map((mark) => (
        <g key={mark.id} transform={`translate(${x(mark.second ?? 0)} 0)`}>
          <path d="M-9 4L9 4L0 22Z" fill={colour.clay} />
          <text x={14} y={17} fontSize={18} fontWeight={600} fill={colour.clay} fontFamily={font.text}>
            {props.faultName(mark.fault)} {seconds(mark.second ?? 0)}
          </text>
        </g>
      ))}
      {props.hold && x(hold.clean) > 150 && (
        <text x={12} y={22 + 27} fontSize={22} fontWeight={700} fill={colour.sheet} fontFamily={font.text}>
          {say("capture.clean-clean", { clean: seconds(hold.clean) })}
        </text>
      )}
      <text
        x={x(hold.held) + 12}
        y={22 + 27}
        fontSize={20}
        fill={colour.ink}
        fontFamily={font.text}
        visibility={x(hold.held) > width - 170 ? "hidden" : undefined}
      >
        {props.hold ? seconds(hold.held) : say("capture.hold-target-s", { target })}
      </text>
    </svg>
  );
}

function Reps({ trial }: { trial: LiveTrialState }) {
  const { colour } = useTheme();
  const count = Math.max(trial.target.reps, trial.reps.length);
  const slot = width / count;
  const done = trial.reps.filter((r) => !r.broken).length;
  return (
    <svg
      viewBox={`0 0 ${width} 22`}
      width="100%"
      role="img"
      aria-label={say("capture.reps-of-reps2-reps-done", {
        reps: trial.reps.length,
        reps2: trial.target.reps,
        done,
      })}
      style={{ display: "block" }}
    >
      <Hatch colour={colour.sea} />
      {Array.from({ length: count }, (_, i) => {
        const rep = trial.reps[i];
        const fill = !rep ? colour.wash : rep.broken ? "url(#hatch)" : colour.sea;
        return (
          <rect
            key={i}
            x={i * slot + 2}
            y={3}
            width={slot - 4}
            height={16}
            fill={fill}
            stroke={i === trial.reps.length ? colour.ink : rep?.broken ? colour.sea : "none"}
            strokeWidth={2}
          />
        );
      })}
    </svg>
  );
}

function Hatch({ colour }: { colour: string }) {
  return (
    <defs>
      <pattern id="hatch" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="10" stroke={colour} strokeWidth="6" />
      </pattern>
    </defs>
  );
}
