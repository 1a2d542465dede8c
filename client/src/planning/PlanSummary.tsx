import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog, Disclosure, DisclosurePanel } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { findRung, keys } from "../api/queries";
import type { EpisodeView, Library, Plan, PlanItem, PlanView, PlanWork } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { strategyWords, activationWords } from "../controls/words";
import { Opener } from "../controls/DataTable";
import { MapTable } from "./MapTable";
import { OrderList } from "./OrderList";
import { OtherPlans } from "./OtherPlans";
import { WorkTable } from "./WorkTable";
import type { PlanDraft } from "./usePlanDraft";
import { say } from "../words/say";

const Aside = styled.aside`
  position: sticky;
  top: ${({ theme }) => theme.space(4)};
  display: grid;
  gap: ${({ theme }) => theme.space(4)};
  max-height: calc(100vh - 32px);
  overflow-y: auto;
  padding-right: ${({ theme }) => theme.space(2)};
  ${({ theme }) => theme.narrow} {
    position: static;
    max-height: none;
  }
`;

const Minutes = styled.p`
  font: 800 44px/1 ${({ theme }) => theme.font.display};
  small {
    font: 400 17px/1 ${({ theme }) => theme.font.text};
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

/** Minutes, warnings and the way to accept; below, order, other plans, the week, the map, and what was left out. */
export function PlanSummary(props: Props) {
  const { episode, view, draft, plan, library } = props;
  const general = plan.warnings.filter((w) => w.itemId === null);
  return (
    <Aside aria-label={say("planning.the-plan-as-a-whole")}>
      <Minutes>
        {plan.totalMinutes.toFixed(0)}{" "}
        <small>{say("planning.min-a-day-client-has", { minutesPerDay: episode.intake.minutesPerDay })}</small>
      </Minutes>
      <p>
        {say("planning.back-strategywords-activation", {
          strategyWords: strategyWords[plan.strategy],
          activationWords: activationWords[plan.switchOn],
        })}
        <br />
        <Quiet>{say("planning.irritability", { level: episode.stirredUp })}</Quiet>
      </p>
      {general.map((w) => (
        <Note key={w.ruleId}>{w.words}</Note>
      ))}
      <Accept {...props} />
      {draft.proposal && <OtherPlans proposal={draft.proposal} onMinutes={draft.setMinutes} />}
      {draft.items.length > 1 && (
        <section aria-label={say("planning.order")}>
          <h3>{say("planning.order")}</h3>
          <OrderList
            items={draft.items.map((item) => plan.items.find((w) => w.id === item.id) ?? item)}
            library={library}
            onOrder={draft.reorder}
          />
        </section>
      )}
      {props.work && <WorkTable work={props.work} />}
      {view.map && (
        <Disclosure>
          <Opener slot="trigger">{say("planning.twelve-week-map")}</Opener>
          <DisclosurePanel>
            <MapTable map={view.map} />
          </DisclosurePanel>
        </Disclosure>
      )}
      {draft.proposal && draft.proposal.notChosen.length > 0 && (
        <Disclosure>
          <Opener slot="trigger">{say("planning.left-out-and-why")}</Opener>
          <DisclosurePanel>
            {draft.proposal.notChosen.map((reason) => (
              <Small key={reason.words}>
                {reason.words} <Quiet>({reason.ruleId})</Quiet>
              </Small>
            ))}
          </DisclosurePanel>
        </Disclosure>
      )}
    </Aside>
  );
}

function Accept(props: Props) {
  const { episode, visitId, view, draft, plan } = props;
  const current = view.revisions.at(-1);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
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
      <Button
        isDisabled={!canAccept || accept.isPending || draft.waiting}
        onPress={() => (barred.length > 0 ? setAsking(true) : accept.mutate([]))}
      >
        {say("planning.accept-as-revision-revision", { revision: (current?.revision ?? 0) + 1 })}
      </Button>
      {draft.current && view.proposal && (
        <Button $quiet onPress={draft.propose}>
          {say("planning.propose-anew-from-the-findings")}
        </Button>
      )}
      {!draft.current && current && (
        <Button $quiet onPress={draft.backToCurrent}>
          {say("planning.back-to-the-plan-in")}
        </Button>
      )}
      <Small>
        {props.library.cautions.noPain} {props.library.cautions.practitionerDecides}
      </Small>
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
