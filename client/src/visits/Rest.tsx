import { useEffect, useRef } from "react";
import styled from "styled-components";
import { useNow } from "../capture/HoldStrip";
import { signalTarget } from "../capture/signals";
import { say } from "../words/say";

const Box = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(4)};
  align-items: center;
  strong {
    font: 800 2.125rem/1 ${({ theme }) => theme.font.display};
    font-variant-numeric: tabular-nums;
    min-width: 120px;
  }
  div {
    height: 12px;
    background: ${({ theme }) => theme.colour.wash};
  }
  i {
    display: block;
    height: 100%;
    background: ${({ theme }) => theme.colour.slate};
  }
`;

/** Rest since the last set ended, against what is asked for; a signal when it is over. */
export function Rest(props: { since: number; seconds: number }) {
  const now = useNow(true);
  const left = Math.max(0, props.seconds - (now - props.since) / 1000);
  const over = left <= 0;
  const was = useRef(over);
  useEffect(() => {
    if (over && !was.current) signalTarget();
    was.current = over;
  }, [over]);
  return (
    <Box
      role="timer"
      aria-label={
        over ? say("visits.rested") : say("visits.rest-seconds-seconds", { seconds: props.seconds })
      }
    >
      <strong>{over ? say("visits.rested") : say("visits.rest-left-s", { left: Math.ceil(left) })}</strong>
      <div>
        <i style={{ width: `${100 * (1 - left / Math.max(1, props.seconds))}%` }} />
      </div>
    </Box>
  );
}
