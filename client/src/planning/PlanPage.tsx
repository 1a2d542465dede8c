import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { useLibrary, usePlan } from "../api/queries";
import type { EpisodeView, Library, Plan, PlanView, PlanWork } from "../api/types";
import { Columns, Empty, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Slider } from "../controls/Slider";
import { Places } from "../controls/Tabs";
import { activationWords, strategyWords } from "../controls/words";
import { dayWords } from "../api/clinicTime";
import { Closed, isHeld } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { Waits } from "../frame/Waits";
import { LeftOut } from "./LeftOut";
import { MapTable } from "./MapTable";
import { PlanBoard } from "./PlanBoard";
import { PlanRows } from "./PlanRows";
import { PlanSummary } from "./PlanSummary";
import { RungPicker } from "../frame/RungPicker";
import { WorkTable } from "./WorkTable";
import { newItem } from "./itemOf";
import { usePlanDraft } from "./usePlanDraft";
import type { PlanDraft } from "./usePlanDraft";
import { Term } from "../frame/Term";
import { say, sayRich } from "../words/say";

export function PlanPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const plan = usePlan(episode?.id ?? "");
  if (!episode || !library) return null;
  if (isHeld(episode)) return <Closed episode={episode} visitId={visitId} />;
  if (!plan.data) return <Waits error={plan.error} />;
  return (
    <Editor
      key={plan.data.revisions.length}
      episode={episode}
      visitId={visitId}
      library={library}
      view={plan.data}
    />
  );
}

interface Props {
  episode: EpisodeView;
  visitId: string;
  library: Library;
  view: PlanView;
}

function Editor(props: Props) {
  const { episode, visitId, view, library } = props;
  const draft = usePlanDraft(episode.id, view, episode.intake.minutesPerDay);
  const items = draft?.items ?? [];
  const weighed = useQuery({
    queryKey: ["weigh", episode.id, items],
    queryFn: () =>
      got(
        api.POST("/api/episodes/{id}/plan/weigh", {
          params: { path: { id: episode.id } },
          body: { items, strategy: draft!.start.strategy, switchOn: draft!.start.switchOn },
        }),
      ),
    enabled: items.length > 0,
    placeholderData: (previous) => previous,
  });
  if (!draft) {
    return (
      <Empty title={say("planning.no-plan-yet")}>
        <p>{say("planning.a-plan-is-made-from")}</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/screen`}>
          {say("planning.go-to-the-screen")}
        </Link>
      </Empty>
    );
  }
  const plan = weighed.data?.plan ?? draft.start;
  const rest = { ...props, draft, plan, work: weighed.data?.work };
  return (
    <Columns $at="minmax(0, 1fr) 300px" style={{ gap: 28 }}>
      <Places
        label={say("planning.looks-at-the-plan")}
        head={<Title {...rest} />}
        more={view.revisions.length > 1 && <CompareLink episode={episode} visitId={visitId} />}
        places={[
          { id: "exercises", name: say("planning.exercises"), content: <Exercises {...rest} /> },
          {
            id: "ladders",
            name: say("planning.ladders"),
            content: (
              <PlanBoard
                items={items}
                library={library}
                forbidden={view.forbidden}
                entries={view.entries}
                onChange={draft.change}
                onAdd={draft.add}
              />
            ),
          },
          { id: "week", name: say("planning.week"), content: <Week {...rest} /> },
          {
            id: "left-out",
            name: say("planning.left-out-count", { count: view.forbidden.length }),
            content: <LeftOut view={view} library={library} proposal={draft.proposal} />,
          },
        ]}
      />
      <PlanSummary {...rest} weighError={weighed.error} />
    </Columns>
  );
}

type Rest = Props & { draft: PlanDraft; plan: Plan; work: PlanWork | undefined };

function Title({ draft, view }: Rest) {
  const current = view.revisions.at(-1);
  return (
    <h1>
      {draft.current
        ? say("planning.plan-revision-revision", { revision: current?.revision ?? 1 })
        : say("planning.proposed-plan")}
    </h1>
  );
}

function CompareLink(props: { episode: EpisodeView; visitId: string }) {
  return (
    <Link
      to={`/episodes/${props.episode.id}/visits/${props.visitId}/plan/compare`}
      style={{ color: "inherit", padding: "12px 0" }}
    >
      {say("planning.compare-revisions")}
    </Link>
  );
}

const Terms = styled(Small)`
  font-size: 0.875rem;
  line-height: 1.3;
`;

/** By what it was made, and for how many minutes. */
function Exercises(props: Rest) {
  const { episode, view, draft, plan, visitId } = props;
  const current = view.revisions.at(-1);
  return (
    <Stack $gap={1}>
      <Terms>
        {episode.policyName.toLowerCase()}
        {draft.start.policyVersion > 1 &&
          say("planning.version-policyversion", { policyVersion: draft.start.policyVersion })}{" "}
        ·{" "}
        <Term name="irritability">
          {say("planning.irritability", { level: episode.stirredUp }).toLowerCase().replace(/\.$/, "")}
        </Term>{" "}
        ·{" "}
        {say("planning.back-strategywords-activation", {
          strategyWords: strategyWords[plan.strategy],
          activationWords: activationWords[plan.switchOn],
        })
          .toLowerCase()
          .replace(/\.$/, "")}
        {draft.current && current && (
          <>
            <br />
            {say("planning.accepted-acceptedat-by-acceptedby-changing", {
              acceptedAt: dayWords(current.acceptedAt),
              acceptedBy: current.acceptedBy,
            })}
          </>
        )}
      </Terms>
      {!draft.current && (
        <Slider
          inline
          label={say("planning.minutes-a-day")}
          value={draft.minutes}
          min={1}
          max={45}
          step={1}
          words={say("planning.minutes-min-minutes2", {
            minutes: draft.minutes,
            minutes2:
              draft.minutes === episode.intake.minutesPerDay
                ? say("planning.what-the-client-has")
                : say("planning.the-client-has-minutesperday", {
                    minutesPerDay: episode.intake.minutesPerDay,
                  }),
          })}
          onChange={draft.setMinutes}
        />
      )}
      {(draft.proposal?.notes ?? []).map((note) => (
        <Note key={note.words}>
          {note.words} <Quiet>({note.ruleId})</Quiet>
        </Note>
      ))}
      <ProblemNote error={draft.error} />
      {draft.items.length === 0 ? (
        <p>
          {sayRich("planning.nothing-is-in-the-plan", {
            link: (chunks) => <Link to={`/episodes/${episode.id}/visits/${visitId}/ask`}>{chunks}</Link>,
          })}
        </p>
      ) : (
        <PlanRows
          episodeId={episode.id}
          draft={draft}
          plan={plan}
          library={props.library}
          forbidden={view.forbidden}
        />
      )}
      <Row $gap={4}>
        <RungPicker
          label={say("planning.add-an-exercise")}
          library={props.library}
          forbidden={view.forbidden}
          onPick={(rungId, barOverride) => draft.add(newItem(rungId, barOverride, props.library))}
        />
        <Terms style={{ flex: 1, minWidth: 200 }}>{say("planning.every-number-can-be-changed")}</Terms>
      </Row>
    </Stack>
  );
}

function Week({ work, view }: Rest) {
  return (
    <Stack $gap={5}>
      {work && <WorkTable work={work} />}
      {view.map && <MapTable map={view.map} />}
    </Stack>
  );
}
