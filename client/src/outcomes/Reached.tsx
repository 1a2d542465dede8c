import styled from "styled-components";
import { findRung, usePlan } from "../api/queries";
import type { Library, PlanRevision } from "../api/types";
import { HiddenVisually, Quiet, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { RungFigure } from "../figure/FigureView";
import { say } from "../words/say";

/** A rung of a way, and the day of the plan that brought it. */
export interface Step {
  rungId: string;
  since: string;
}

/** The way through a ladder: its rungs in the order in which plans brought them. */
export interface Way {
  ladderId: string;
  steps: Step[];
}

/**
 * What each ladder's exercise was in one plan after the other, oldest first. A ladder that stayed at its rung has one step; one
 * that left the plan keeps the way it came.
 */
export function waysOf(revisions: Pick<PlanRevision, "plan" | "acceptedAt">[], library: Library): Way[] {
  const ways = new Map<string, Step[]>();
  for (const { plan, acceptedAt } of revisions) {
    for (const { rungId } of plan.items) {
      const ladderId = findRung(library, rungId).ladder.id;
      const steps = ways.get(ladderId) ?? [];
      if (steps.at(-1)?.rungId !== rungId) ways.set(ladderId, [...steps, { rungId, since: acceptedAt }]);
    }
  }
  return [...ways].map(([ladderId, steps]) => ({ ladderId, steps }));
}

const Line = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(1)};
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    align-items: center;
    gap: ${({ theme }) => theme.space(1)};
  }
  figure {
    margin: 0;
    padding: ${({ theme }) => theme.space(1)};
    width: 128px;
    border-bottom: 3px solid ${({ theme }) => theme.colour.rule};
    font-size: 0.875rem;
    line-height: 1.15;
  }
  li:last-child figure {
    border-color: ${({ theme }) => theme.colour.sea};
    font-weight: 600;
  }
`;

const Grid = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(6)};
`;

/** What the client can show at home: the exercises as they grew, in pictures. */
export function Reached(props: { episodeId: string; library: Library }) {
  const { library } = props;
  const { data } = usePlan(props.episodeId);
  const ways = waysOf(data?.revisions ?? [], library).filter((way) => way.steps.length > 1);
  if (ways.length === 0) return null;
  return (
    <section aria-label={say("outcomes.what-was-reached")}>
      <Stack $gap={2}>
        <h2>{say("outcomes.what-was-reached")}</h2>
        <Grid>
          {ways.map((way) => (
            <Line key={way.ladderId} aria-label={library.ladders.find((l) => l.id === way.ladderId)?.name}>
              {way.steps.map((step, i) => {
                const { rung } = findRung(library, step.rungId);
                return (
                  <li key={step.since}>
                    {i > 0 && <Quiet aria-hidden>→</Quiet>}
                    <figure>
                      <RungFigure rungId={rung.id} side="right" width={120} height={58} />
                      <figcaption>
                        {rung.name}
                        <HiddenVisually>
                          {" "}
                          {say("outcomes.since-day", { day: dayWords(step.since) })}
                        </HiddenVisually>
                      </figcaption>
                    </figure>
                  </li>
                );
              })}
            </Line>
          ))}
        </Grid>
      </Stack>
    </section>
  );
}
