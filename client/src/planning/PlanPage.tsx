import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { useLibrary, usePlan } from "../api/queries";
import type { EpisodeView, Library, PlanView } from "../api/types";
import { Columns, Empty, Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { Slider } from "../controls/Slider";
import { dayWords } from "../api/clinicTime";
import { Closed, isHeld } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { ForbiddenList } from "./ForbiddenList";
import { PlanBoard } from "./PlanBoard";
import { PlanItemRow } from "./PlanItemRow";
import { PlanSummary } from "./PlanSummary";
import { RungPicker } from "../frame/RungPicker";
import { newItem } from "./itemOf";
import { usePlanDraft } from "./usePlanDraft";
import type { PlanDraft } from "./usePlanDraft";
import { say, sayRich } from "../words/say";

export function PlanPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const plan = usePlan(episode?.id ?? "");
  if (!episode || !library) return null;
  if (isHeld(episode)) return <Closed episode={episode} visitId={visitId} />;
  if (plan.error && !plan.data) return <ProblemNote error={plan.error} />;
  if (!plan.data) return null;
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
  return (
    <Columns $at="minmax(0, 1fr) 290px" style={{ gap: 32 }}>
      <Stack $gap={2}>
        <Head {...props} draft={draft} />
        {items.map((item, i) => (
          <PlanItemRow
            key={item.rungId}
            episodeId={episode.id}
            item={item}
            weighed={plan.items.find((w) => w.id === item.id)}
            warnings={plan.warnings.filter((w) => w.itemId === item.id)}
            library={library}
            forbidden={view.forbidden}
            first={i === 0}
            last={i === items.length - 1}
            kept={draft.current ? undefined : draft.isKept(item)}
            onKeep={(kept) => draft.keep(item, kept)}
            onChange={(next) => draft.change(item, next)}
            onMove={(by) => draft.move(item.rungId, by)}
          />
        ))}
        <Ruled>
          <RungPicker
            label={say("planning.add-an-exercise")}
            library={library}
            forbidden={view.forbidden}
            onPick={(rungId, barOverride) => draft.add(newItem(rungId, barOverride, library))}
          />
        </Ruled>
        <Ruled>
          <PlanBoard
            items={items}
            library={library}
            forbidden={view.forbidden}
            entries={view.entries}
            onChange={draft.change}
            onAdd={draft.add}
          />
        </Ruled>
        <ForbiddenList view={view} library={library} />
      </Stack>
      <PlanSummary
        {...props}
        draft={draft}
        plan={plan}
        work={weighed.data?.work}
        weighError={weighed.error}
      />
    </Columns>
  );
}

function Head(props: Props & { draft: PlanDraft }) {
  const { episode, view, draft, visitId } = props;
  const current = view.revisions.at(-1);
  return (
    <>
      <Row $between>
        <h1>
          {draft.current
            ? say("planning.plan-revision-revision", { revision: current?.revision ?? 1 })
            : say("planning.proposed-plan")}{" "}
          <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
            {episode.policyName.toLowerCase()}
            {draft.start.policyVersion > 1 &&
              say("planning.version-policyversion", { policyVersion: draft.start.policyVersion })}
          </Quiet>
        </h1>
        {view.revisions.length > 1 && (
          <Link to={`/episodes/${episode.id}/visits/${visitId}/plan/compare`} style={{ color: "inherit" }}>
            {say("planning.compare-revisions")}
          </Link>
        )}
      </Row>
      <Small>
        {draft.current && current
          ? say("planning.accepted-acceptedat-by-acceptedby-changing", {
              acceptedAt: dayWords(current.acceptedAt),
              acceptedBy: current.acceptedBy,
            })
          : say("planning.every-number-can-be-changed")}
      </Small>
      {!draft.current && (
        <Slider
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
      {draft.items.length === 0 && (
        <p>
          {sayRich("planning.nothing-is-in-the-plan", {
            link: (chunks) => <Link to={`/episodes/${episode.id}/visits/${visitId}/ask`}>{chunks}</Link>,
          })}
        </p>
      )}
      <ProblemNote error={draft.error} />
    </>
  );
}
