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
import { capital, strategyWords, switchOnWords } from "../controls/words";
import { Opener } from "../controls/DataTable";
import { MapTable } from "./MapTable";
import { OrderList } from "./OrderList";
import { OtherPlans } from "./OtherPlans";
import { WorkTable } from "./WorkTable";
import type { PlanDraft } from "./usePlanDraft";

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
    <Aside aria-label="The plan as a whole">
      <Minutes>
        {plan.totalMinutes.toFixed(0)} <small>min a day · client has {episode.intake.minutesPerDay}</small>
      </Minutes>
      <p>
        Back {strategyWords[plan.strategy]}; {switchOnWords[plan.switchOn]}.
        <br />
        <Quiet>{capital(episode.stirredUp)} irritability.</Quiet>
      </p>
      {general.map((w) => (
        <Note key={w.ruleId}>{w.words}</Note>
      ))}
      <Accept {...props} />
      {draft.proposal && <OtherPlans proposal={draft.proposal} onMinutes={draft.setMinutes} />}
      {draft.items.length > 1 && (
        <section aria-label="Order">
          <h3>Order</h3>
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
          <Opener slot="trigger">Twelve-week map</Opener>
          <DisclosurePanel>
            <MapTable map={view.map} />
          </DisclosurePanel>
        </Disclosure>
      )}
      {draft.proposal && draft.proposal.notChosen.length > 0 && (
        <Disclosure>
          <Opener slot="trigger">Left out, and why</Opener>
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
      {blocking.length > 0 && <Note grave>A barred exercise needs a written reason, or another rung.</Note>}
      <ProblemNote error={accept.error ?? props.weighError} />
      {accept.error instanceof ProblemError && accept.error.status === 409 && (
        <Button $quiet onPress={() => void queries.invalidateQueries({ queryKey: keys.plan(episode.id) })}>
          Show the newer plan
        </Button>
      )}
      <Button
        isDisabled={!canAccept || accept.isPending || draft.waiting}
        onPress={() => (barred.length > 0 ? setAsking(true) : accept.mutate([]))}
      >
        {`Accept as revision ${(current?.revision ?? 0) + 1}`}
      </Button>
      {draft.current && view.proposal && (
        <Button $quiet onPress={draft.propose}>
          Propose anew from the findings
        </Button>
      )}
      {!draft.current && current && (
        <Button $quiet onPress={draft.backToCurrent}>
          Back to the plan in force
        </Button>
      )}
      <Small>
        {props.library.cautions.noPain} {props.library.cautions.practitionerDecides}
      </Small>
      <Veil isOpen={asking} onOpenChange={setAsking} isDismissable>
        <Sheet>
          <Dialog aria-label="In spite of a bar">
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
      <h2>In spite of a bar</h2>
      {props.barred.map((item) => (
        <Note grave key={item.id}>
          <strong>{findRung(props.library, item.rungId).rung.name}</strong>
          <br />
          {props.view.forbidden.find((f) => f.rungId === item.rungId)?.why}
          <br />
          Your reason: {item.barOverride}
        </Note>
      ))}
      <p>
        It stays marked on the plan, on the sheet the client takes home and in the record, with your name.
      </p>
      <Row>
        <Button onPress={props.onConfirm}>Confirm and accept</Button>
        <Button $quiet onPress={props.onBack}>
          Back to the plan
        </Button>
      </Row>
    </Stack>
  );
}
