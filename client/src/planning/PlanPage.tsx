import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { v7 as uuid } from "uuid";
import { api, got, ProblemError } from "../api/client";
import { findRung, keys, useLibrary, usePlan } from "../api/queries";
import type { EpisodeView, Library, Plan, PlanItem, PlanRevision, PlanView } from "../api/types";
import { Button } from "../controls/Button";
import { Columns, Empty, Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { capital, dayWords, strategyWords, switchOnWords } from "../controls/words";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { PlanItemRow } from "./PlanItemRow";
import { RungPicker } from "./RungPicker";

export function PlanPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const plan = usePlan(episode?.id ?? "");
  if (!episode || !library) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  if (plan.error && !plan.data) return <ProblemNote error={plan.error} />;
  if (!plan.data) return null;
  return (
    <PlanOrProposal
      key={plan.data.revisions.length}
      episode={episode}
      visitId={visitId}
      library={library}
      view={plan.data}
    />
  );
}

function PlanOrProposal(props: { episode: EpisodeView; visitId: string; library: Library; view: PlanView }) {
  const { view, episode, visitId } = props;
  const current = view.revisions.at(-1);
  const [start, setStart] = useState<Plan | null>(current?.plan ?? view.proposal?.plan ?? null);
  if (!start) {
    return (
      <Empty title="No plan yet">
        <p>A plan is made from what was seen clean. Screen first; the proposal follows by itself.</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/screen`}>Go to the screen</Link>
      </Empty>
    );
  }
  return (
    <Editor
      {...props}
      key={start === view.proposal?.plan ? "proposal" : "current"}
      start={start}
      current={current}
      onPropose={() => view.proposal && setStart(view.proposal.plan)}
    />
  );
}

const Summary = styled.aside`
  position: sticky;
  top: ${({ theme }) => theme.space(4)};
  display: grid;
  gap: ${({ theme }) => theme.space(4)};
`;

const Minutes = styled.p`
  font: 800 44px/1 ${({ theme }) => theme.font.display};
  small {
    font: 400 17px/1 ${({ theme }) => theme.font.text};
  }
`;

function Editor(props: {
  episode: EpisodeView;
  visitId: string;
  library: Library;
  view: PlanView;
  start: Plan;
  current?: PlanRevision;
  onPropose: () => void;
}) {
  const { episode, view, start, current, library } = props;
  const [items, setItems] = useState<PlanItem[]>(start.items);
  const weighed = useQuery({
    queryKey: ["weigh", episode.id, items],
    queryFn: () =>
      got(
        api.POST("/api/episodes/{id}/plan/weigh", {
          params: { path: { id: episode.id } },
          body: { items, strategy: start.strategy, switchOn: start.switchOn },
        }),
      ),
    enabled: items.length > 0,
    placeholderData: (previous) => previous,
  });
  const plan = weighed.data ?? start;
  const fromProposal = start === view.proposal?.plan;
  const changed = items !== start.items || (fromProposal && current !== undefined);
  const replace = (index: number, item: PlanItem | null) =>
    setItems(items.flatMap((old, i) => (i === index ? (item ? [item] : []) : [old])));
  const move = (index: number, by: number) => {
    const next = [...items];
    const [item] = next.splice(index, 1);
    if (item) next.splice(index + by, 0, item);
    setItems(next);
  };
  return (
    <Columns $at="minmax(0, 1fr) 280px">
      <Stack $gap={2}>
        <Row $between>
          <h1>
            {current && !fromProposal ? `Plan, revision ${current.revision}` : "Proposed plan"}{" "}
            <Quiet style={{ fontSize: 16, fontWeight: 400 }}>{episode.policyName.toLowerCase()}</Quiet>
          </h1>
        </Row>
        <Small>
          {current && !fromProposal
            ? `Accepted ${dayWords(current.acceptedAt)} by ${current.acceptedBy}. Changing a number makes the next revision.`
            : "Every number can be changed. Nothing is prescribed until you accept it."}
        </Small>
        {items.map((item, i) => (
          <PlanItemRow
            episodeId={episode.id}
            key={item.id}
            item={item}
            weighed={plan.items.find((w) => w.id === item.id)}
            warnings={plan.warnings.filter((w) => w.itemId === item.id)}
            library={library}
            forbidden={view.forbidden}
            first={i === 0}
            last={i === items.length - 1}
            onChange={(next) => replace(i, next)}
            onMove={(by) => move(i, by)}
          />
        ))}
        <Ruled>
          <RungPicker
            label="Add an exercise"
            library={library}
            forbidden={view.forbidden}
            onPick={(rungId, barOverride) => setItems([...items, newItem(rungId, barOverride, library)])}
          />
        </Ruled>
        <ForbiddenList view={view} library={library} />
      </Stack>
      <Side
        {...props}
        items={items}
        plan={plan}
        changed={changed}
        weighError={weighed.error}
        fromProposal={fromProposal}
      />
    </Columns>
  );
}

function newItem(rungId: string, barOverride: string | null, library: Library): PlanItem {
  const { rung } = findRung(library, rungId);
  const sides = rung.sides === "each" ? (["left", "right"] as const) : (["both"] as const);
  return {
    id: uuid(),
    rungId,
    for: "added by hand",
    doses: sides.map((side) => ({ side, dose: rung.start, range: 1 })),
    reasons: [{ ruleId: "P-HAND", words: "Added by the practitioner." }],
    changes: [],
    cue: rung.cues[0] ?? "",
    minutes: 0,
    barOverride,
  };
}

function Side(props: {
  episode: EpisodeView;
  visitId: string;
  view: PlanView;
  items: PlanItem[];
  plan: Plan;
  current?: PlanRevision;
  changed: boolean;
  fromProposal: boolean;
  weighError: unknown;
  start: Plan;
  onPropose: () => void;
}) {
  const { episode, visitId, plan, items, current, start } = props;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const accept = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/episodes/{id}/plans", {
          params: { path: { id: episode.id } },
          body: {
            plan: { items, strategy: start.strategy, switchOn: start.switchOn },
            visitId,
            basedOn: current?.revision ?? 0,
          },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      void navigate(`/episodes/${episode.id}/visits/${visitId}/take-home`);
    },
  });
  const blocking = plan.warnings.filter((w) => w.blocks);
  const general = plan.warnings.filter((w) => w.itemId === null);
  const canAccept = (props.changed || !current) && items.length > 0 && blocking.length === 0;
  return (
    <Summary>
      <Minutes>
        {plan.totalMinutes.toFixed(0)} <small>min a day · client has {episode.intake.minutesPerDay}</small>
      </Minutes>
      <p>
        Back {strategyWords[plan.strategy]}; {switchOnWords[plan.switchOn]}.
        <br />
        <Quiet>{capital(episode.stirredUp)} stirred-up-ness.</Quiet>
      </p>
      {general.map((w) => (
        <Note key={w.ruleId}>{w.words}</Note>
      ))}
      {blocking.length > 0 && <Note grave>A barred exercise needs a written reason, or another rung.</Note>}
      <ProblemNote error={accept.error ?? props.weighError} />
      {accept.error instanceof ProblemError && accept.error.status === 409 && (
        <Button $quiet onPress={() => void queries.invalidateQueries({ queryKey: keys.plan(episode.id) })}>
          Show the newer plan
        </Button>
      )}
      <Button isDisabled={!canAccept || accept.isPending} onPress={() => accept.mutate()}>
        {`Accept as revision ${(current?.revision ?? 0) + 1}`}
      </Button>
      {current && !props.fromProposal && props.view.proposal && (
        <Button $quiet onPress={props.onPropose}>
          Propose anew from the findings
        </Button>
      )}
      <Small>
        Exercise should not raise pain. The program proposes; the licensed practitioner decides, and local
        rules come first.
      </Small>
      {props.view.proposal && props.view.proposal.notChosen.length > 0 && (
        <div>
          <h3>Left out</h3>
          {props.view.proposal.notChosen.map((reason) => (
            <Small key={reason.words}>
              {reason.words} <Quiet>({reason.ruleId})</Quiet>
            </Small>
          ))}
        </div>
      )}
    </Summary>
  );
}

function ForbiddenList({ view, library }: { view: PlanView; library: Library }) {
  if (view.forbidden.length === 0) return null;
  const byReason = Map.groupBy(view.forbidden, (f) => f.why);
  return (
    <Ruled>
      <h2>Forbidden for this client</h2>
      <ul>
        {[...byReason].map(([why, rungs]) => (
          <li key={why} style={{ marginTop: 8 }}>
            <strong>{capital(why)}</strong>
            <br />
            {rungs.map((f, i) => (
              <span key={f.rungId}>
                {i > 0 && " · "}
                <s>{findRung(library, f.rungId).rung.name}</s>
              </span>
            ))}
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
