import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { keys, useLibrary } from "../api/queries";
import type { EpisodeView, RestingShape, SpinalStrategy, Activation } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Columns, Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { capital, shapeWords, strategyWords, activationWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { Closed, isHeld } from "../frame/Closed";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { Term } from "../frame/Term";
import { say } from "../words/say";

export function NeutralPage() {
  const { episode, visitId } = useVisit();
  if (!episode) return null;
  if (isHeld(episode)) return <Closed episode={episode} visitId={visitId} />;
  return <Neutral key={episode.version} episode={episode} visitId={visitId} />;
}

const Says = styled.p`
  font: 700 1.6875rem/1.2 ${({ theme }) => theme.font.display};
`;

function Neutral(props: { episode: EpisodeView; visitId: string }) {
  const { episode, visitId } = props;
  const kept = episode.neutral;
  const { data: library } = useLibrary();
  const neutral = library?.ladders.flatMap((l) => l.rungs).find((r) => r.features.includes("neutral"));
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [shape, setShape] = useState<RestingShape>(kept.restingShape ?? "middling");
  const [chosen, setChosen] = useState<SpinalStrategy | null>(kept.strategy);
  const [switched, setSwitched] = useState<Activation | null>(kept.switchOn);
  const stayed = useUnsaved(
    shape !== (kept.restingShape ?? "middling") || chosen !== kept.strategy || switched !== kept.switchOn,
  );
  const ask = useQuery({
    queryKey: ["neutral", episode.id, episode.version, shape, chosen],
    queryFn: () =>
      got(
        api.GET("/api/episodes/{id}/neutral", {
          params: { path: { id: episode.id }, query: { shape, strategy: chosen ?? undefined } },
        }),
      ),
    placeholderData: (previous) => previous,
  });
  const proposal = ask.data?.proposal ?? kept.proposal;
  const strategy: SpinalStrategy = chosen ?? proposal.strategy ?? "neutral";
  const switchOn: Activation = switched ?? proposal.switchOn ?? "brace";
  const save = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/episodes/{id}/neutral", {
          params: { path: { id: episode.id } },
          body: { restingShape: shape, strategy, switchOn, version: episode.version },
        }),
      ),
    onSuccess: (stored) => {
      stayed();
      queries.setQueryData(keys.episode(episode.id), stored);
      void queries.invalidateQueries();
      void navigate(`/episodes/${episode.id}/visits/${visitId}/screen`);
    },
  });
  return (
    <Columns $at="minmax(0, 1.1fr) minmax(0, 1fr)">
      <Stack $gap={5}>
        <h1>
          <Term name="neutral">{say("intake.neutral")}</Term>
        </h1>
        <p>{say("intake.on-the-back-knees-bent")}</p>
        <Choice
          label={say("intake.resting-shape-of-the-low")}
          value={shape}
          onChange={(v) => {
            setShape(v);
            setChosen(null);
          }}
          options={(Object.keys(shapeWords) as RestingShape[]).map((s) => ({
            value: s,
            label: shapeWords[s],
          }))}
        />
        <Choice
          label={say("intake.held-on-the-back-as")}
          value={strategy}
          onChange={setChosen}
          options={(Object.keys(strategyWords) as SpinalStrategy[]).map((s) => ({
            value: s,
            label: strategyWords[s],
          }))}
        />
        <Choice
          label={say("intake.switch-on")}
          value={switchOn}
          onChange={setSwitched}
          options={(Object.keys(activationWords) as Activation[]).map((s) => ({
            value: s,
            label: activationWords[s],
          }))}
          hint={say("intake.draw-in-is-offered-when")}
        />
        <ProblemNote error={save.error} />
        <Row>
          <Button isDisabled={save.isPending} onPress={() => save.mutate()}>
            {say("intake.keep-and-screen")}
          </Button>
        </Row>
      </Stack>
      <Stack $gap={4}>
        {neutral && <RungFigure rungId={neutral.id} side="right" width="100%" height={210} />}
        <Says>
          {capital(strategyWords[strategy])}; {activationWords[switchOn]}.
        </Says>
        <p>
          {strategy === proposal.strategy
            ? proposal.why
            : say("intake.the-policy-would-choose-strategywords", {
                strategyWords: strategyWords[proposal.strategy ?? "neutral"],
                why: proposal.why,
              })}
        </p>
        <Small>
          {say("intake.rule-ruleid-policy-policyname", {
            ruleId: proposal.ruleId,
            policyName: episode.policyName,
          })}
        </Small>
        {ask.data?.cautions.map((words) => (
          <Note key={words}>{say("intake.caution-words", { words: capital(words) })}</Note>
        ))}
      </Stack>
    </Columns>
  );
}
