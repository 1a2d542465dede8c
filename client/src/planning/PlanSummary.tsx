import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { findRung, keys } from "../api/queries";
import type { EpisodeView, Library, Plan, PlanItem, PlanView, PlanWork } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { CoverChart } from "./CoverChart";
import { OtherPlans } from "./OtherPlans";
import type { PlanDraft } from "./usePlanDraft";
import { useUnsaved } from "../frame/unsaved";
import { say } from "../words/say";

const Aside = styled.aside`
  display: grid;
  align-content: start;
  gap: ${({ theme }) => theme.space(3)};
  ${({ theme }) => theme.narrow} {
    grid-template:
      "accept trains" auto
      "instead trains" auto
      "instead caution" 1fr / minmax(0, 1fr) minmax(0, 1fr);
    gap: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(6)};
    > .accept {
      grid-area: accept;
    }
    > .caution {
      grid-area: caution;
    }
    > .trains {
      grid-area: trains;
    }
    > .instead {
      grid-area: instead;
    }
  }
  @media (max-width: 37.5em) {
    grid-template: none / minmax(0, 1fr);
    > * {
      grid-area: auto !important;
    }
  }
`;

const Minutes = styled.p`
  font: 800 1.875rem/1 ${({ theme }) => theme.font.display};
  small {
    font: 400 1rem/1 ${({ theme }) => theme.font.text};
  }
`;

/** Accepting, and beside it the one other way. */
const Ways = styled.div`
  display: flex;
  gap: ${({ theme }) => theme.space(2)};
  > * {
    flex: 1 1 0;
    min-height: 56px;
    padding: 0 ${({ theme }) => theme.space(2)};
  }
`;

interface Props {
  episode: EpisodeView;
  visitId: string;
  library: Library;
  view: PlanView;
  draft: PlanDraft;
  plan: Plan;
  work: PlanWork | undefined;
  weighError: unknown;
}

/** Minutes, warnings and the way to accept; what it trains; what would do instead. */
export function PlanSummary(props: Props) {
  const { episode, draft, plan, work } = props;
  const general = plan.warnings.filter((w) => w.itemId === null);
  return (
    <Aside aria-label={say("planning.the-plan-as-a-whole")}>
      <Stack $gap={2} className="accept">
        <Minutes>
          {plan.totalMinutes.toFixed(1)}{" "}
          <small>
            {say("planning.min-a-day-client-has", { minutesPerDay: episode.intake.minutesPerDay })}
          </small>
        </Minutes>
        {general.map((w) => (
          <Note key={w.ruleId}>{w.words}</Note>
        ))}
        <Accept {...props} />
      </Stack>
      <Small className="caution" style={{ fontSize: "0.875rem", lineHeight: 1.3 }}>
        {props.library.cautions.noPain} {props.library.cautions.practitionerDecides}
      </Small>
      <div className="trains">{work && <CoverChart work={work} />}</div>
      <div className="instead">
        {draft.proposal && <OtherPlans proposal={draft.proposal} onMinutes={draft.setMinutes} />}
      </div>
    </Aside>
  );
}

function Accept(props: Props) {
  const { episode, visitId, view, draft, plan } = props;
  const current = view.revisions.at(-1);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const stored = useUnsaved(draft.touched);
  const barred = draft.items.filter((item) => item.barOverride);
  const accept = useMutation({
    mutationFn: (confirmed: string[]) =>
      got(
        api.POST("/api/episodes/{id}/plans", {
          params: { path: { id: episode.id } },
          body: {
            plan: { items: draft.items, strategy: draft.start.strategy, switchOn: draft.start.switchOn },
            visitId,
            basedOn: current?.revision ?? 0,
            confirmed,
          },
        }),
      ),
    onSuccess: async () => {
      stored();
      await queries.invalidateQueries();
      void navigate(`/episodes/${episode.id}/visits/${visitId}/take-home`);
    },
  });
  const blocking = plan.warnings.filter((w) => w.blocks);
  const canAccept = (draft.changed || !current) && draft.items.length > 0 && blocking.length === 0;
  return (
    <>
      {blocking.length > 0 && <Note grave>{say("planning.a-barred-exercise-needs-a")}</Note>}
      <ProblemNote error={accept.error ?? props.weighError} />
      {accept.error instanceof ProblemError && accept.error.status === 409 && (
        <Button $quiet onPress={() => void queries.invalidateQueries({ queryKey: keys.plan(episode.id) })}>
          {say("planning.show-the-newer-plan")}
        </Button>
      )}
      <Ways>
        <Button
          isDisabled={!canAccept || accept.isPending || draft.waiting}
          onPress={() => (barred.length > 0 ? setAsking(true) : accept.mutate([]))}
        >
          {say("planning.accept-as-revision-revision", { revision: (current?.revision ?? 0) + 1 })}
        </Button>
        {draft.current && view.proposal && (
          <Button $quiet $small onPress={draft.propose}>
            {say("planning.propose-anew-from-the-findings")}
          </Button>
        )}
        {!draft.current && current && (
          <Button $quiet $small onPress={draft.backToCurrent}>
            {say("planning.back-to-the-plan-in")}
          </Button>
        )}
      </Ways>
      <Veil isOpen={asking} onOpenChange={setAsking} isDismissable>
        <Sheet>
          <Dialog aria-label={say("planning.in-spite-of-a-bar")}>
            <SecondLook
              barred={barred}
              library={props.library}
              view={view}
              onBack={() => setAsking(false)}
              onConfirm={() => {
                setAsking(false);
                accept.mutate(barred.map((item) => item.id));
              }}
            />
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}

/** A bar is overridden with a reason and a second confirmation; both stay on the plan, the sheet and the record. */
function SecondLook(props: {
  barred: PlanItem[];
  library: Library;
  view: PlanView;
  onBack: () => void;
  onConfirm: () => void;
}) {
  return (
    <Stack $gap={4}>
      <h2>{say("planning.in-spite-of-a-bar")}</h2>
      {props.barred.map((item) => (
        <Note grave key={item.id}>
          <strong>{findRung(props.library, item.rungId).rung.name}</strong>
          <br />
          {props.view.forbidden.find((f) => f.rungId === item.rungId)?.why}
          <br />
          {say("planning.your-reason-baroverride", { barOverride: item.barOverride ?? "" })}
        </Note>
      ))}
      <p>{say("planning.it-stays-marked-on-the")}</p>
      <Row>
        <Button onPress={props.onConfirm}>{say("planning.confirm-and-accept")}</Button>
        <Button $quiet onPress={props.onBack}>
          {say("planning.back-to-the-plan")}
        </Button>
      </Row>
    </Stack>
  );
}
