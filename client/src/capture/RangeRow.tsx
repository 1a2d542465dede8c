import styled from "styled-components";
import type { Rung, ScreenTask } from "../api/types";
import { Button } from "../controls/Button";
import { RungFigure } from "../figure/FigureView";
import type { Actions } from "./actions";
import type { LiveRange, LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

const Rail = styled.div`
  display: flex;
  gap: ${({ theme }) => theme.space(2)};
  overflow-x: auto;
`;

const Stop = styled(Button)<{ $chosen: boolean }>`
  flex: 1;
  min-width: 84px;
  padding: 2px;
  font-size: 0.875rem;
  border-width: ${({ $chosen }) => ($chosen ? 4 : 1)}px;
  font-weight: ${({ $chosen }) => ($chosen ? 700 : 500)};
  display: grid;
  justify-items: center;
  align-content: center;
  /* On a phone the words alone: the body above has the room. */
  @media (max-width: 37.5em) {
    min-width: 0;
    min-height: 44px;
    svg {
      display: none;
    }
    div {
      height: 0 !important;
    }
  }
`;

/** The stops of a task: its angles, or quarters of the drawn movement. */
export const rangeStops = (task: ScreenTask | null): LiveRange[] =>
  task?.measure === "degrees"
    ? (task.stops ?? []).map((degrees) => ({ share: null, degrees }))
    : [0.25, 0.5, 0.75, 1].map((share) => ({ share, degrees: null }));

/** How far it goes, picked on the drawing: the stop stands until another is picked. */
export function RangeRow(props: {
  trial: LiveTrialState;
  rung: Rung;
  task: ScreenTask | null;
  actions: Actions;
}) {
  const { trial, rung, task, actions } = props;
  return (
    <Rail role="group" aria-label={say("capture.how-far-it-goes")}>
      {rangeStops(task).map((stop) => {
        const chosen = trial.range?.share === stop.share && trial.range.degrees === stop.degrees;
        const drawn = stop.share ?? (stop.degrees ?? 0) / (task?.full ?? 1);
        return (
          <Stop key={drawn} $quiet $chosen={chosen} aria-pressed={chosen} onPress={() => actions.range(stop)}>
            <RungFigure rungId={rung.id} side={trial.side} range={drawn} width={72} height={40} />
            {stop.degrees !== null
              ? `${stop.degrees}°`
              : stop.share === 1
                ? say("capture.full")
                : `${(stop.share ?? 0) * 100} %`}
          </Stop>
        );
      })}
    </Rail>
  );
}
