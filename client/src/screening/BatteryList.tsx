import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Library, RungSearch, ScreenStep, ScreenView } from "../api/types";
import { findTask } from "../capture/sideCounts";
import { Button } from "../controls/Button";
import { Quiet, Row } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { taskName } from "./BatteryPage";
import { say } from "../words/say";

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Line = styled.li<{ $now: boolean }>`
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(2)};
  align-items: center;
  min-height: 56px;
  padding-inline-start: ${({ theme }) => theme.space(2)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  border-inline-start: 5px solid ${({ theme, $now }) => ($now ? theme.colour.clay : "transparent")};
`;

/** The tasks of the battery in order: what is done, what is next; any of them can be done now. */
export function BatteryList(props: {
  screen: ScreenView;
  library: Library;
  now: ScreenStep | null;
  /** Tasks of which the server has not seen everything yet. */
  tried: ReadonlySet<string>;
  onPick: (step: ScreenStep) => void;
  onPlan: () => void;
}) {
  const { screen, library } = props;
  return (
    <section aria-label={say("screening.tasks-of-this-screen")}>
      <Row $between>
        <h2>{say("screening.this-screen")}</h2>
        <Button $quiet $small onPress={props.onPlan}>
          {say("screening.change-the-tasks")}
        </Button>
      </Row>
      <List>
        {screen.states.map((state) => {
          const name = taskName(library, state.taskId);
          const now = props.now?.taskId === state.taskId;
          const next = state.next;
          return (
            <Line key={state.taskId} $now={now}>
              <strong aria-hidden>{state.done ? "✓" : now ? "→" : ""}</strong>
              <span>
                <strong>{name}</strong>
                <br />
                <Quiet style={{ fontSize: "0.9375rem" }}>
                  {resultOf(state.taskId, screen, library) ??
                    (props.tried.has(state.taskId)
                      ? say("screening.tried")
                      : state.done
                        ? say("screening.done")
                        : say("screening.to-do"))}
                </Quiet>
              </span>
              {next && !now && (
                <Button
                  $quiet
                  $small
                  aria-label={say("screening.do-name-now", { name })}
                  onPress={() => props.onPick(next)}
                >
                  {say("screening.now")}
                </Button>
              )}
            </Line>
          );
        })}
      </List>
    </section>
  );
}

/** For a climb: where each side enters. For the others: how many trials. */
function resultOf(taskId: string, screen: ScreenView, library: Library) {
  const ladder = findTask(library, taskId)?.ladder;
  const state = screen.states.find((s) => s.taskId === taskId)!;
  if (!ladder) {
    return state.trials.length === 0
      ? null
      : `${state.trials.length} ${state.trials.length === 1 ? say("screening.trial") : say("screening.trials")}${state.done ? say("screening.done-2") : ""}`;
  }
  const searches = screen.searches.filter((s) => s.ladderId === ladder && s.trialIds.length > 0);
  if (searches.length === 0) return null;
  return searches.map((s) => (
    <span key={s.side} style={{ display: "block" }}>
      <SideTag side={s.side} /> {entryWords(s, library)}
    </span>
  ));
}

function entryWords(search: RungSearch, library: Library) {
  if (!search.done) return say("screening.searching");
  return search.entryRungId ? findRung(library, search.entryRungId).rung.name : say("screening.none-clean");
}
