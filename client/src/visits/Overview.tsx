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
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 4px ${({ theme }) => theme.space(3)};
    min-height: 52px;
    padding: 3px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

const Sides = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(2)};
`;

/** One side: how many of its sets are done, and one press to do the next of them. */
const Do = styled(Button)`
  display: flex;
  align-items: center;
  gap: ${({ theme }) => theme.space(2)};
  min-height: 44px;
  padding: 0 ${({ theme }) => theme.space(2)};
  &[data-disabled] {
    background: none;
    border-color: transparent;
  }
`;

const Sets = styled.span`
  display: inline-flex;
  gap: 4px;
  i {
    width: 16px;
    height: 16px;
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
      {changing ? (
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
      ) : (
        !item.skipped && (
          <Sides>
            {item.item.doses.map((dose) => (
              <SideOf key={dose.side} {...props} side={dose.side} />
            ))}
          </Sides>
        )
      )}
    </li>
  );
}

function SideOf(props: Props & { item: SessionItem; side: SetToDo["side"] }) {
  const { sets, trials, side, item } = props;
  const { rung } = findRung(props.library, item.item.rungId);
  const own = sets.filter((s) => s.item.id === item.item.id && s.side === side);
  const open = own.find((s) => !isDone(s, trials));
  const done = props.performances.find((p) => p.planItemId === item.item.id && p.side === side);
  const finished = own.filter((s) => isDone(s, trials)).length;
  const words = done
    ? say("visits.cleanreps-of-prescribed-clean", {
        cleanReps: done.cleanReps ?? 0,
        prescribed: totalReps(done.prescribed),
      })
    : "";
  return (
    <Do
      $quiet
      $small
      isDisabled={!open}
      aria-label={
        open
          ? say("visits.do-rung-side", { rung: rung.name, side })
          : say("visits.done-rung-side", { rung: rung.name, side })
      }
      aria-description={`${say("visits.own-of-own2-sets-done", { own: finished, own2: own.length })} ${words}`}
      onPress={() => open && props.onPick(open)}
    >
      <SideTag side={side} />
      {words ? (
        <span>{words}</span>
      ) : (
        <Sets aria-hidden>
          {own.map((s) => (
            <i key={s.set} className={isDone(s, trials) ? "done" : ""} />
          ))}
        </Sets>
      )}
    </Do>
  );
}
