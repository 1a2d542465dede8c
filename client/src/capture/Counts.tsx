import styled from "styled-components";
import type { Library, Side } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { doseWords } from "../controls/words";
import { countsFor, measureOf, type SideCount } from "./sideCounts";
import { useNow } from "./HoldStrip";
import type { LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

const Numbers = styled.div`
  display: flex;
  gap: ${({ theme }) => theme.space(3)};
  .side {
    flex: 1;
    padding-top: ${({ theme }) => theme.space(2)};
    border-top: 5px solid currentColor;
  }
  .left {
    color: ${({ theme }) => theme.colour.sea};
  }
  .right {
    color: ${({ theme }) => theme.colour.bark};
  }
  .big {
    display: block;
    color: ${({ theme }) => theme.colour.ink};
    font: 800 3.25rem/1.05 ${({ theme }) => theme.font.display};
    font-variant-numeric: tabular-nums;
  }
`;

/** Clean work of both sides, large; all work small beside it. */
export function Counts(props: { trial: LiveTrialState; others: LiveTrialState[]; library: Library }) {
  const measure = measureOf(props.library, props.trial);
  const now = useNow(measure === "seconds" && props.trial.holdSince !== null);
  const counts = countsFor(props.trial, props.others, measure, now);
  return (
    <div>
      <Numbers>
        {counts.map((c: SideCount) => (
          <div key={c.side} className={`side ${c.side}`}>
            <strong>{sideWords[c.side]}</strong>
            <span className="big">{c.big}</span>
            <Quiet style={{ fontSize: "0.9375rem" }}>{c.small}</Quiet>
          </div>
        ))}
      </Numbers>
      {measure !== "effort" && measure !== "yes-no" && (
        <Small>
          {say("capture.asked-measure", {
            measure:
              measure === "seconds"
                ? say("capture.hold-s-at-most", { hold: props.trial.target.hold })
                : doseWords(props.trial.target),
            load: props.trial.load !== null ? say("capture.load-kg", { load: props.trial.load }) : "",
          })}
        </Small>
      )}
    </div>
  );
}

const sideWords: Record<Side, string> = {
  left: say("capture.left"),
  right: say("capture.right"),
  both: say("capture.together"),
};
