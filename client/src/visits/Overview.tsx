import { useState } from "react";
import styled from "styled-components";
import { findRung, usePlan } from "../api/queries";
import type { Library, Performance, SessionItem } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import { Button } from "../controls/Button";
import { Quiet, Row, Small } from "../controls/layout";
import { totalReps } from "../controls/words";
import { SideTag } from "../controls/SideTag";
import { RungPicker } from "../frame/RungPicker";
import { SwapDialog } from "../frame/SwapDialog";
import { isDone, type SetToDo } from "./sessionWork";
import { say } from "../words/say";

const List = styled.ul`
  li {
    padding: ${({ theme }) => theme.space(2)} 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

const SetLine = styled.div`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) auto 60px;
  gap: ${({ theme }) => theme.space(2)};
  align-items: center;
  min-height: 46px;
`;

const Sets = styled.span`
  display: inline-flex;
  gap: 6px;
  i {
    width: 20px;
    height: 20px;
    border: 2px solid ${({ theme }) => theme.colour.slate};
    border-radius: 3px;
  }
  i.done {
    background: ${({ theme }) => theme.colour.slate};
  }
`;

export interface OnTheFly {
  skip: (item: SessionItem) => void;
  bringBack: (item: SessionItem) => void;
  add: (rungId: string, inPlaceOf: string | null) => void;
}

interface Props {
  episodeId: string;
  items: SessionItem[];
  sets: SetToDo[];
  trials: LiveTrialState[];
  performances: Performance[];
  library: Library;
  onPick: (todo: SetToDo) => void;
  onTheFly: OnTheFly;
}

/** All exercises of the session: what is done, and skipping, swapping and adding. */
export function Overview(props: Props) {
  const { items, library, episodeId } = props;
  const [changing, setChanging] = useState(false);
  const { data: plan } = usePlan(changing ? episodeId : null);
  const [barred, setBarred] = useState(false);
  return (
    <section aria-label={say("visits.exercises-of-this-session")}>
      <Row $between>
        <h2>{say("visits.today")}</h2>
        <Button $quiet $small aria-pressed={changing} onPress={() => setChanging(!changing)}>
          {changing ? say("visits.done-changing") : say("visits.skip-swap-add")}
        </Button>
      </Row>
      <List>
        {items.map((item) => (
          <Item key={item.item.id} {...props} item={item} changing={changing} />
        ))}
      </List>
      {changing && plan && (
        <Row $gap={3} style={{ paddingTop: 12 }}>
          <RungPicker
            label={say("visits.add-an-exercise")}
            library={library}
            forbidden={plan.forbidden}
            onPick={(rungId, reason) => {
              setBarred(reason !== null);
              if (reason === null) props.onTheFly.add(rungId, null);
            }}
          />
          <Small>
            {barred ? say("visits.a-barred-exercise-is-not") : say("visits.added-for-today-to-keep")}
          </Small>
        </Row>
      )}
    </section>
  );
}

function Item(props: Props & { item: SessionItem; changing: boolean }) {
  const { item, library, changing, onTheFly } = props;
  const { rung } = findRung(library, item.item.rungId);
  const begun = props.trials.some((t) => t.planItemId === item.item.id);
  return (
    <li>
      <Row $between>
        <strong>
          {item.skipped ? <s>{rung.name}</s> : rung.name}
          {item.added && (
            <Quiet>
              {" "}
              {say("visits.inplaceof-today", {
                inPlaceOf: item.inPlaceOf ? say("visits.stands-in") : say("visits.added"),
              })}
            </Quiet>
          )}
          {item.skipped && <Quiet> {say("visits.left-out-today")}</Quiet>}
        </strong>
        {changing && (
          <Row $gap={2}>
            {item.skipped ? (
              <Button $quiet $small onPress={() => onTheFly.bringBack(item)}>
                {say("visits.bring-back")}
              </Button>
            ) : (
              <>
                {!begun && !item.added && (
                  <SwapDialog
                    episodeId={props.episodeId}
                    rungId={item.item.rungId}
                    onPick={(rungId) => {
                      onTheFly.skip(item);
                      onTheFly.add(rungId, item.item.id);
                    }}
                  />
                )}
                <Button
                  $quiet
                  $small
                  aria-label={say("visits.skip-rung", { rung: rung.name })}
                  onPress={() => onTheFly.skip(item)}
                >
                  {say("visits.skip")}
                </Button>
              </>
            )}
          </Row>
        )}
      </Row>
      {!item.skipped && item.item.doses.map((dose) => <SideOf key={dose.side} {...props} side={dose.side} />)}
    </li>
  );
}

function SideOf(props: Props & { item: SessionItem; side: SetToDo["side"] }) {
  const { sets, trials, side, item } = props;
  const { rung } = findRung(props.library, item.item.rungId);
  const own = sets.filter((s) => s.item.id === item.item.id && s.side === side);
  const open = own.find((s) => !isDone(s, trials));
  const done = props.performances.find((p) => p.planItemId === item.item.id && p.side === side);
  return (
    <SetLine>
      <SideTag side={side} />
      <Sets
        aria-label={say("visits.own-of-own2-sets-done", {
          own: own.filter((s) => isDone(s, trials)).length,
          own2: own.length,
        })}
        role="img"
      >
        {own.map((s) => (
          <i key={s.set} className={isDone(s, trials) ? "done" : ""} />
        ))}
      </Sets>
      <Quiet>
        {done
          ? say("visits.cleanreps-of-prescribed-clean", {
              cleanReps: done.cleanReps ?? 0,
              prescribed: totalReps(done.prescribed),
            })
          : ""}
      </Quiet>
      {open ? (
        <Button
          $quiet
          $small
          aria-label={say("visits.do-rung-side", { rung: rung.name, side })}
          onPress={() => props.onPick(open)}
        >
          {say("visits.do")}
        </Button>
      ) : (
        <Quiet>{say("visits.done")}</Quiet>
      )}
    </SetLine>
  );
}
