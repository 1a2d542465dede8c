import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { Link, useNavigate } from "react-router";
import { api, got } from "../api/client";
import { useDecisions, useLibrary } from "../api/queries";
import type { Decision, DecideView, EpisodeView, Library, Outcome, PlanItem } from "../api/types";
import { useOutbox } from "../capture/OutboxContext";
import { Button } from "../controls/Button";
import { Bar, Empty, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { totalReps } from "../controls/words";
import { Closed, isHeld } from "../frame/Closed";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { DecisionRow } from "./DecisionRow";
import { NextPlan } from "./NextPlan";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

export function DecidePage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data, error } = useDecisions(visitId);
  if (!episode || !library) return null;
  if (isHeld(episode) && !episode.dischargedOn) return <Closed episode={episode} visitId={visitId} />;
  if (!data) return <Waits error={error} />;
  if (!data.plan) {
    return (
      <Empty title={say("progression.nothing-to-decide-yet")}>
        <p>{data.whyNot}</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/session`}>
          {say("progression.go-to-the-session")}
        </Link>
      </Empty>
    );
  }
  return <Decide key={visitId} episode={episode} visitId={visitId} view={data} library={library} />;
}

export interface Override {
  outcome: Outcome;
  reason: string;
}

export const sideKey = (d: { planItemId: string; side: string }) => `${d.planItemId} ${d.side}`;

const numbers = [
  say("progression.no"),
  say("progression.one"),
  say("progression.two"),
  say("progression.three"),
  say("progression.four"),
  say("progression.five"),
  say("progression.six"),
  say("progression.seven"),
  say("progression.eight"),
  say("progression.nine"),
  say("progression.ten"),
];

/** Decisions of one exercise that say the same for both sides stand in one line. */
export function linesOf(decisions: Decision[]): Decision[][] {
  const [first, second] = decisions;
  if (first && second && first.outcome === second.outcome && first.ruleId === second.ruleId)
    return [decisions];
  return decisions.map((d) => [d]);
}

function Decide(props: { episode: EpisodeView; visitId: string; view: DecideView; library: Library }) {
  const { episode, visitId, view, library } = props;
  const [overrides, setOverrides] = useState<Map<string, Override>>(new Map());
  const stored = useUnsaved(overrides.size > 0);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const outbox = useOutbox();
  const { queued } = useSyncExternalStore(outbox.subscribe, outbox.getStatus);
  const plan = view.plan!;
  const taken = view.taken.length > 0;
  const choices = view.proposals.flatMap((p) => {
    const own = overrides.get(sideKey(p));
    return own ? [{ planItemId: p.planItemId, side: p.side, ...own }] : [];
  });
  const form = { choices, basedOn: episode.planRevision ?? 0 };
  const preview = useQuery({
    queryKey: ["decisions-preview", visitId, form],
    queryFn: () =>
      got(api.POST("/api/visits/{visitId}/decisions/preview", { params: { path: { visitId } }, body: form })),
    enabled: !taken && choices.length > 0,
    placeholderData: (previous) => previous,
  });
  const own = choices.length > 0 ? preview.data : undefined;
  const proposed = taken ? view.taken : view.proposals;
  const next = own?.next ?? view.next;
  const take = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/visits/{visitId}/decisions", {
          params: { path: { visitId } },
          body: form,
        }),
      ),
    onSuccess: async () => {
      stored();
      await queries.invalidateQueries();
      void navigate(`/episodes/${episode.id}/visits/${visitId}/take-home`);
    },
  });
  const lines = plan.plan.items.flatMap((item) =>
    linesOf(inOrderOf(item, proposed)).map((decisions) => ({ item, decisions })),
  );
  const setOverride = (decisions: Decision[], override: Override | null) => {
    const next = new Map(overrides);
    for (const d of decisions) {
      if (override) next.set(sideKey(d), override);
      else next.delete(sideKey(d));
    }
    setOverrides(next);
  };
  return (
    <Stack $gap={1}>
      <Row $between>
        <h1>
          {numbers[lines.length] ?? lines.length}{" "}
          {lines.length === 1 ? say("progression.decision") : say("progression.decisions")}{" "}
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("progression.policy-policyname", { policyName: view.policyName.toLowerCase() })}
          </Quiet>
        </h1>
        <Quiet>
          {say("progression.totalminutes-totalminutes2-min-a-day", {
            totalMinutes: plan.plan.totalMinutes.toFixed(0),
            totalMinutes2: (next?.totalMinutes ?? 0).toFixed(0),
          })}
        </Quiet>
      </Row>
      {queued > 0 && (
        <Note grave>
          {say("progression.queued-still-on-the-way", {
            queued:
              queued === 1 ? say("progression.one-mark-is") : say("progression.queued-marks-are", { queued }),
            queued2: queued,
          })}
        </Note>
      )}
      {view.changed.length > 0 && <Note grave>{say("progression.the-record-of-this-or")}</Note>}
      {taken && <Note>{say("progression.decided-the-plan-that-followed")}</Note>}
      {lines.map(({ item, decisions }) => (
        <DecisionRow
          key={item.id + (decisions[0]?.side ?? "")}
          item={item}
          decisions={decisions}
          chosen={decisions.map((d) => own?.decisions.find((o) => sideKey(o) === sideKey(d)) ?? d)}
          library={library}
          performed={performanceWords(view, item, decisions)}
          home={homeWords(view, item, decisions)}
          numbers={view.numbers.filter((n) => n.planItemId === item.id)}
          changed={view.changed.filter((c) => c.then.planItemId === item.id)}
          visitId={visitId}
          session={`/episodes/${episode.id}/visits/${visitId}/session`}
          override={decisions[0] ? (overrides.get(sideKey(decisions[0])) ?? null) : null}
          onOverride={taken ? null : (o) => setOverride(decisions, o)}
        />
      ))}
      <ProblemNote error={take.error} />
      <ProblemNote error={preview.error} />
      {!taken && next && <NextPlan plan={next} library={library} />}
      <Bar>
        {!taken && (
          <Button isDisabled={take.isPending || queued > 0} onPress={() => take.mutate()}>
            {overrides.size === 0
              ? say("progression.agree-with-all")
              : say("progression.take-these-decisions")}
          </Button>
        )}
        <Small style={{ flex: 1, minWidth: 240, fontSize: "0.875rem", lineHeight: 1.3 }}>
          {!taken &&
            say("progression.makes-plan-revision-planrevision-proposals", {
              planRevision: (episode.planRevision ?? 0) + 1,
            })}{" "}
          {say("progression.by-eye-evidence-what-was")}
        </Small>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/replay`} style={{ color: "inherit" }}>
          {say("progression.what-other-policies-would-have")}
        </Link>
      </Bar>
    </Stack>
  );
}

/** The decisions of an exercise in the order its sides are done. */
const inOrderOf = (item: PlanItem, decisions: Decision[]) =>
  item.doses.flatMap((dose) => decisions.find((d) => d.planItemId === item.id && d.side === dose.side) ?? []);

/** Home work of the sides of a line: done of what was planned. */
function homeWords(view: DecideView, item: PlanItem, decisions: Decision[]) {
  return decisions.flatMap((d) => {
    const home = view.home.find((h) => h.planItemId === item.id && h.side === d.side);
    if (!home || home.share === null || home.share === undefined) return [];
    const side = d.side === "both" ? "" : `${d.side} `;
    return [
      say("progression.side-share-of-the-planned", {
        side,
        share: Math.round(home.share * 100),
        days: home.days,
      }),
    ];
  });
}

function performanceWords(view: DecideView, item: PlanItem, decisions: Decision[]) {
  return decisions.flatMap((d) => {
    const p = view.performances.find((x) => x.planItemId === item.id && x.side === d.side);
    if (!p) return [];
    const asked = totalReps(p.prescribed);
    const side = d.side === "both" ? "" : `${d.side} `;
    return [say("progression.side-cleanreps-of-asked-clean", { side, cleanReps: p.cleanReps ?? 0, asked })];
  });
}
