import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { ChangedDecision, Decision, Library, Outcome, PlanItem, Side, SideNumbers } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, TextField } from "../controls/fields";
import { Quiet, Row, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { capital, doseWords, outcomeWords, spellWords } from "../controls/words";
import { ChangingFigure } from "../figure/ChangingFigure";
import { RungFigure } from "../figure/FigureView";
import { DecisionMark } from "./DecisionMark";
import type { Override } from "./DecidePage";
import { PegLadder } from "./PegLadder";
import { WhatIf } from "./WhatIf";
import { useRuleName } from "./useRuleName";
import { Term } from "../frame/Term";
import { say, sayRich } from "../words/say";

const Line = styled.section`
  display: grid;
  grid-template-columns: 92px 60px minmax(0, 1fr) 150px 62px 84px;
  gap: 0 ${({ theme }) => theme.space(3)};
  align-items: center;
  min-height: 64px;
  padding: 2px 0;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  h2 {
    font-size: 1.0625rem;
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: 76px minmax(0, 1fr) 132px 62px 84px;
    > .pegs {
      display: none;
    }
  }
  @media (max-width: 37.5em) {
    grid-template-columns: 64px minmax(0, 1fr) 62px 84px;
    > .outcome {
      grid-column: 2;
      grid-row: 2;
    }
  }
`;

const Word = styled.span`
  display: inline-flex;
  align-items: center;
  gap: ${({ theme }) => theme.space(2)};
  font: 700 1.0625rem/1.1 ${({ theme }) => theme.font.display};
`;

const Said = styled.p<{ $whole: boolean }>`
  font-size: 0.9375rem;
  line-height: 1.25;
  ${({ $whole }) =>
    !$whole && "display: -webkit-box; overflow: hidden; -webkit-box-orient: vertical; -webkit-line-clamp: 2;"}
  /* Held upright there is room for all of it. */
  ${({ theme }) => theme.narrow} {
    -webkit-line-clamp: 5;
  }
`;

const Below = styled.div`
  grid-column: 3 / -1;
  padding: ${({ theme }) => theme.space(1)} 0 ${({ theme }) => theme.space(3)};
  ${({ theme }) => theme.narrow} {
    grid-column: 2 / -1;
  }
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
  const [why, setWhy] = useState(false);
  const decision = decisions[0]!;
  const { rung, ladder } = findRung(library, item.rungId);
  const to = findRung(library, chosen[0]!.rungId).rung;
  const drawn: Side = to.sides !== "each" ? "both" : decision.side === "both" ? "left" : decision.side;
  const outcome = chosen[0]!.outcome;
  const changed = props.changed.filter((c) => decisions.some((d) => d.side === c.then.side));
  return (
    <Line aria-label={`${rung.name}: ${outcomeWords[outcome]}`}>
      <ChangingFigure
        before={to.id === rung.id ? null : rung.id}
        rungId={to.id}
        side={drawn}
        width="100%"
        height={58}
      >
        <RungFigure rungId={to.id} side={drawn} width="100%" height={58} />
      </ChangingFigure>
      <span className="pegs">
        {ladder.direction !== "none" && <PegLadder ladder={ladder} item={item} decisions={chosen} />}
      </span>
      <div>
        <h2>
          {rung.name}
          {to.id !== rung.id && ` → ${to.name.toLowerCase()}`} <Sides decisions={decisions} />
        </h2>
        <Said $whole={why || override !== null || changed.length > 0}>
          {outcome !== "stop" && <DoseChange item={item} decisions={decisions} chosen={chosen} />}
          {!override && decision.todo && <strong>{decision.todo} </strong>}
          <span>{decision.evidence.join(" ")}</span>{" "}
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
        </Said>
        {props.onOverride && decision.probe && (
          <Said $whole={why}>
            <strong>
              <Term name="probe">{say("progression.ready")}</Term>{" "}
            </strong>
            <Link to={`${props.session}?try=${item.id}`}>
              {say("progression.try-one-up-today-rung", {
                rung: findRung(library, decision.probe.rungId).rung.name.toLowerCase(),
              })}
            </Link>{" "}
            <Quiet>
              {doseWords(decision.probe.dose)}. {decision.probe.evidence.join(" ")}
            </Quiet>
          </Said>
        )}
        {changed.map((c) => (
          <p key={c.then.side}>
            {sayRich("progression.would-now-be-outcomewords-rule", {
              outcomeWords: outcomeWords[c.now.outcome],
              strong: (chunks) => <strong>{chunks}</strong>,
              rule: ruleName(c.now.ruleId),
              evidence: c.now.evidence.join(" "),
            })}
          </p>
        ))}
      </div>
      <Word className="outcome">
        <DecisionMark outcome={outcome} />
        {outcomeWords[outcome]}
      </Word>
      <Button
        $quiet
        $small
        aria-expanded={why}
        aria-label={say("progression.evidence-and-what-would-change-of", { rung: rung.name })}
        onPress={() => setWhy(!why)}
      >
        {say("progression.why-short")}
      </Button>
      {props.onOverride ? (
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
      ) : (
        <span />
      )}
      {why && (
        <Below>
          <Evidence {...props} />
        </Below>
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

/** The dose as it was, and as it will be where that is another. */
function DoseChange(props: { item: PlanItem; decisions: Decision[]; chosen: Decision[] }) {
  const { item, decisions, chosen } = props;
  const once = (words: string[]) => [...new Set(words)].join(" / ");
  const was = once(
    item.doses.filter((d) => decisions.some((x) => x.side === d.side)).map((d) => doseWords(d.dose)),
  );
  const other = chosen.some((d) => doseWords(d.dose) !== doseOf(item, d));
  return (
    <Quiet>
      {was}
      {other && ` → ${once(chosen.map((d) => doseWords(d.dose)))}`}
      {" · "}
    </Quiet>
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
    <Stack $gap={1}>
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
    </Stack>
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
