import { useState } from "react";
import { Button as AriaButton, Disclosure, DisclosurePanel } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { ChangedDecision, Decision, Library, Outcome, PlanItem, SideNumbers } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, TextField } from "../controls/fields";
import { Quiet, Row, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { capital, doseWords, outcomeWords, spellWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { DecisionMark } from "./DecisionMark";
import type { Override } from "./DecidePage";
import { PegLadder } from "./PegLadder";
import { WhatIf } from "./WhatIf";
import { useRuleName } from "./useRuleName";
import { say, sayRich } from "../words/say";

const Line = styled.section`
  display: grid;
  grid-template-columns: 124px 92px minmax(0, 1fr) 168px 128px;
  gap: ${({ theme }) => theme.space(4)};
  align-items: center;
  padding: ${({ theme }) => theme.space(1)} 0;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  ${({ theme }) => theme.narrow} {
    grid-template-columns: 110px minmax(0, 1fr);
  }
`;

const Word = styled.span`
  display: inline-flex;
  align-items: center;
  gap: ${({ theme }) => theme.space(3)};
  font: 700 19px/1.1 ${({ theme }) => theme.font.display};
`;

const Opener = styled(AriaButton)`
  min-height: 32px;
  padding: 0;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.grey};
  font: inherit;
  font-size: 15px;
  text-decoration: underline;
  cursor: pointer;
`;

interface Props {
  item: PlanItem;
  /** The policy's, or what was taken. */
  decisions: Decision[];
  /** What the practitioner's own choice comes to; the same where they agree. */
  chosen: Decision[];
  library: Library;
  performed: string[];
  home: string[];
  numbers: SideNumbers[];
  changed: ChangedDecision[];
  visitId: string;
  /** Where what is ready is tried. */
  session: string;
  override: Override | null;
  /** Null when the visit is decided already. */
  onOverride: ((override: Override | null) => void) | null;
}

export function DecisionRow(props: Props) {
  const { item, decisions, chosen, library, override } = props;
  const ruleName = useRuleName();
  const [choosing, setChoosing] = useState(false);
  const decision = decisions[0]!;
  const { rung, ladder } = findRung(library, item.rungId);
  const to = findRung(library, chosen[0]!.rungId).rung;
  const outcome = chosen[0]!.outcome;
  return (
    <Line aria-label={`${rung.name}: ${outcomeWords[outcome]}`}>
      <RungFigure
        rungId={to.id}
        side={
          to.sides === "each" && decision.side === "both"
            ? "left"
            : to.sides === "each"
              ? decision.side
              : "both"
        }
        width={124}
        height={78}
      />
      {ladder.direction !== "none" ? <PegLadder ladder={ladder} item={item} decisions={chosen} /> : <span />}
      <div>
        <h2>
          {rung.name}
          {to.id !== rung.id && ` → ${to.name.toLowerCase()}`} <Sides decisions={decisions} />
        </h2>
        <p style={{ lineHeight: 1.25 }}>
          {decision.evidence.join(" ")} {!override && decision.todo && <strong>{decision.todo}</strong>}{" "}
          {override && (
            <strong>
              {say("progression.policy-and-yours", {
                proposed: capital(outcomeWords[decision.outcome]),
                taken: outcomeWords[override.outcome],
                reason: override.reason.replace(/\.$/, ""),
                note: outcome !== override.outcome ? ` ${say("progression.there-is-no-such-step")}` : "",
              })}
            </strong>
          )}{" "}
          {!override && notesOf(chosen).map((words) => <span key={words}>{words} </span>)}
          {outcome !== "stop" && (
            <Quiet>
              {item.doses
                .filter((d) => decisions.some((x) => x.side === d.side))
                .map((d) => doseWords(d.dose))
                .filter((words, i, all) => all.indexOf(words) === i)
                .join(" / ")}
              {chosen.some((d) => doseWords(d.dose) !== doseOf(item, d)) &&
                ` → ${chosen
                  .map((d) => doseWords(d.dose))
                  .filter((words, i, all) => all.indexOf(words) === i)
                  .join(" / ")}`}
            </Quiet>
          )}
        </p>
        {props.onOverride && decision.probe && (
          <p>
            <strong>{say("progression.ready")} </strong>
            <Link to={`${props.session}?try=${item.id}`}>
              {say("progression.try-one-up-today-rung", {
                rung: findRung(library, decision.probe.rungId).rung.name.toLowerCase(),
              })}
            </Link>{" "}
            <Quiet>
              {doseWords(decision.probe.dose)}. {decision.probe.evidence.join(" ")}
            </Quiet>
          </p>
        )}
        {props.changed
          .filter((c) => decisions.some((d) => d.side === c.then.side))
          .map((c) => (
            <p key={c.then.side}>
              {sayRich("progression.would-now-be-outcomewords-rule", {
                outcomeWords: outcomeWords[c.now.outcome],
                strong: (chunks) => <strong>{chunks}</strong>,
                rule: ruleName(c.now.ruleId),
                evidence: c.now.evidence.join(" "),
              })}
            </p>
          ))}
        <Evidence {...props} />
      </div>
      <Word>
        <DecisionMark outcome={outcome} />
        {outcomeWords[outcome]}
      </Word>
      {props.onOverride && (
        <Button
          $quiet
          $small
          onPress={() => {
            if (override) props.onOverride?.(null);
            setChoosing(!override && !choosing);
          }}
        >
          {override ? say("progression.agree-instead") : say("progression.other")}
        </Button>
      )}
      {choosing && props.onOverride && (
        <Chooser
          proposed={decision.outcome}
          onDone={(chosen) => {
            props.onOverride?.(chosen);
            setChoosing(false);
          }}
        />
      )}
    </Line>
  );
}

/** What was asked until now of the side that a decision is about. */
const doseOf = (item: PlanItem, decision: Decision) => {
  const dose = item.doses.find((d) => d.side === decision.side)?.dose;
  return dose ? doseWords(dose) : "";
};

/** What a resting or halved exercise goes back to, and what is noted for its card. */
function notesOf(decisions: Decision[]) {
  return [...new Set(decisions.flatMap((d) => [...spellWords(d.spell), ...(d.notes ?? [])]))];
}

function Sides({ decisions }: { decisions: Decision[] }) {
  const only = decisions.length === 1 ? decisions[0] : undefined;
  return only && only.side !== "both" ? <SideTag side={only.side} /> : null;
}

function Evidence(props: Props) {
  const { decisions, performed } = props;
  const rules = [...new Set(decisions.flatMap((d) => d.rules ?? [d.ruleId]))].join(", ");
  const besides = [
    ...new Set(
      decisions.flatMap((d) =>
        (d.fired ?? []).filter((f) => f.ruleId !== d.ruleId).flatMap((f) => f.evidence),
      ),
    ),
  ];
  const would = [...new Set(decisions.flatMap((d) => (d.wouldChange ? [d.wouldChange] : [])))];
  return (
    <Disclosure>
      <Opener slot="trigger">{say("progression.evidence-and-what-would-change")}</Opener>
      <DisclosurePanel>
        {performed.length > 0 && (
          <p>{say("progression.today-performed", { performed: performed.join("; ") })}</p>
        )}
        {props.home.length > 0 && <p>{say("progression.at-home-home", { home: props.home.join("; ") })}</p>}
        {would.map((words) => (
          <p key={words}>{words}</p>
        ))}
        {besides.map((words) => (
          <p key={words}>{say("progression.also-words", { words })}</p>
        ))}
        <Quiet>
          {rules.includes(",") ? say("progression.rules") : say("progression.rule")} {rules}
        </Quiet>
        {props.onOverride && decisions[0] && (
          <WhatIf
            visitId={props.visitId}
            decision={decisions[0]}
            numbers={props.numbers.find((n) => n.side === decisions[0]?.side)?.numbers ?? []}
            library={props.library}
          />
        )}
      </DisclosurePanel>
    </Disclosure>
  );
}

const ChooserBox = styled.div`
  grid-column: 1 / -1;
  padding: ${({ theme }) => theme.space(4)};
  background: ${({ theme }) => theme.colour.sheet};
`;

function Chooser(props: { proposed: Outcome; onDone: (override: Override | null) => void }) {
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [reason, setReason] = useState("");
  const options = (Object.keys(outcomeWords) as Outcome[])
    .filter((o) => o !== props.proposed)
    .map((o) => ({ value: o, label: outcomeWords[o] }));
  return (
    <ChooserBox>
      <Stack $gap={3}>
        <Choice label={say("progression.instead")} value={outcome} onChange={setOutcome} options={options} />
        <TextField
          label={say("progression.why")}
          hint={say("progression.kept-with-the-decision")}
          value={reason}
          onChange={setReason}
        />
        <Row>
          <Button
            isDisabled={!outcome || !reason.trim()}
            onPress={() => outcome && props.onDone({ outcome, reason: reason.trim() })}
          >
            {say("progression.use-this-instead")}
          </Button>
          <Button $quiet onPress={() => props.onDone(null)}>
            {say("progression.keep-the-proposal")}
          </Button>
        </Row>
      </Stack>
    </ChooserBox>
  );
}
