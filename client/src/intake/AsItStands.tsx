import { Link } from "react-router";
import styled from "styled-components";
import { birthWords } from "../api/clinicTime";
import { useLibrary } from "../api/queries";
import type { EpisodeView } from "../api/types";
import { Button } from "../controls/Button";
import { Bar, Quiet, Row, Small, Stack } from "../controls/layout";
import { capital } from "../controls/words";
import { settlingWords, type Draft } from "./IntakeFields";
import type { StepName } from "./IntakeSteps";
import { say } from "../words/say";

const Line = styled.div`
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(4)};
  align-items: center;
  padding: ${({ theme }) => theme.space(2)} 0;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  h2 {
    font-size: 1.125rem;
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) auto;
    h2 {
      grid-column: 1 / -1;
    }
  }
`;

/** At a later visit: what was answered before, a line each, and only what is no longer so is asked again. */
export function AsItStands(props: {
  episode: EpisodeView;
  visitId: string;
  draft: Draft;
  onChange: (step: StepName) => void;
}) {
  const { draft, episode } = props;
  const { data: library } = useLibrary();
  const names = (list: { id: string; name: string }[] | undefined, ids: readonly string[]) =>
    ids.map((id) => list?.find((entry) => entry.id === id)?.name ?? id).join(", ");
  const { now, worst, usual } = draft.pain;
  const asked = (value: number | null) => (value === null ? say("intake.not-asked") : String(value));
  const lines: { what: string; step: StepName; words: React.ReactNode }[] = [
    { what: say("intake.client"), step: "first", words: `${draft.name}, ${birthWords(draft.birthDate)}` },
    {
      what: say("intake.what-hurts"),
      step: "hurts",
      words: (
        <>
          {draft.complaint}{" "}
          <Quiet>
            {say("intake.pain-line", {
              now: asked(now),
              worst: asked(worst),
              usual: asked(usual),
              settles: settlingWords(draft.settleHours) ?? say("intake.not-asked"),
            })}{" "}
            {draft.wakesAtNight && say("intake.wakes")}
          </Quiet>
        </>
      ),
    },
    {
      what: say("intake.precautions"),
      step: "hurts",
      words:
        episode.tags.length === 0
          ? say("intake.no-precautions")
          : episode.tags.map((tag) => capital(tag.words)).join(" · "),
    },
    {
      what: say("intake.what-the-client-wants-to"),
      step: "home",
      words: names(library?.goals, draft.goals ?? []) || say("intake.no-goals"),
    },
    {
      what: say("intake.at-home"),
      step: "home",
      words: (
        <>
          {say("intake.time-line", { minutes: draft.minutesPerDay, days: draft.daysPerWeek ?? 5 })}{" "}
          <Quiet>
            {draft.equipment
              ? say("intake.equipment-line", { pieces: names(library?.equipment, draft.equipment) })
              : say("intake.equipment-open")}
          </Quiet>
        </>
      ),
    },
    {
      what: say("intake.policy"),
      step: "home",
      words: names(library?.policies, [draft.policyId]),
    },
  ];
  const base = `/episodes/${episode.id}/visits/${props.visitId}`;
  return (
    <Stack $gap={3}>
      <Row $between>
        <div>
          <h1>{say("intake.ask")}</h1>
          <Small>{say("intake.as-it-stands")}</Small>
        </div>
        <Link to={`${base}/chart`}>{say("intake.to-the-body-chart")}</Link>
      </Row>
      <div>
        {lines.map((line) => (
          <Line key={line.what}>
            <h2>{line.what}</h2>
            <div>{line.words}</div>
            <Button
              $quiet
              $small
              aria-label={say("intake.change-what", { what: line.what })}
              onPress={() => props.onChange(line.step)}
            >
              {say("intake.change")}
            </Button>
          </Line>
        ))}
      </div>
      <Bar>
        <Small>{say("intake.answers-given-here-are-this")}</Small>
        <Link to={`${base}/session`} style={{ marginInlineStart: "auto" }}>
          {say("intake.to-the-session")}
        </Link>
      </Bar>
    </Stack>
  );
}
