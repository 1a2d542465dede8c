import { memo } from "react";
import { GridList, GridListItem } from "react-aria-components";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { ForbiddenRung, Library, Plan, PlanItem, PlanWarning } from "../api/types";
import { Grip } from "../controls/Grip";
import { useReorder } from "../controls/useReorder";
import { RungFigure } from "../figure/FigureView";
import { say } from "../words/say";
import { Doses } from "./Doses";
import { ItemDialog } from "./ItemDialog";
import { Pegs } from "./Pegs";
import type { PlanDraft } from "./usePlanDraft";

const List = styled(GridList)`
  display: grid;
`;

const Line = styled(GridListItem)`
  display: grid;
  grid-template-columns: 36px 104px minmax(150px, 1fr) 252px 44px 46px 48px;
  align-items: center;
  column-gap: ${({ theme }) => theme.space(3)};
  min-height: 76px;
  padding: 2px 0;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  &:last-child {
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: -3px;
  }
  @media (max-width: 37.5em) {
    grid-template-columns: 80px minmax(0, 1fr) 46px 48px;
    .grip,
    .pegs {
      display: none;
    }
    .doses {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;

const Name = styled.h2`
  font-size: 1.125rem;
  line-height: 1.15;
`;

const Locked = styled.span`
  padding: 0 5px;
  border: 1px solid currentColor;
  border-radius: ${({ theme }) => theme.radius};
  font: 600 0.8125rem/1.2 ${({ theme }) => theme.font.text};
`;

const Why = styled.p<{ $mark?: boolean; $grave?: boolean }>`
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  font-size: 0.875rem;
  line-height: 1.25;
  color: ${({ theme, $grave }) => ($grave ? theme.colour.clay : theme.colour.grey)};
  font-weight: ${({ $grave }) => ($grave ? 700 : 400)};
  ${({ theme, $mark }) => $mark && `padding-inline-start: 6px; border-inline-start: 3px solid ${theme.colour.ochre}; `}
`;

const Minutes = styled.p`
  text-align: end;
  font-weight: 700;
  line-height: 1.1;
  small {
    display: block;
    font-size: 0.8125rem;
    font-weight: 400;
    color: ${({ theme }) => theme.colour.grey};
  }
`;

interface Props {
  episodeId: string;
  draft: PlanDraft;
  plan: Plan;
  library: Library;
  forbidden: ForbiddenRung[];
}

/** The whole plan at a glance, in its order: what, why, how much, how far up its ladder, how long. */
export function PlanRows(props: Props) {
  const { draft, plan } = props;
  const ids = draft.items.map((item) => item.rungId);
  const dragAndDropHooks = useReorder(ids, draft.reorder);
  return (
    <List
      aria-label={say("planning.exercises-in-order")}
      keyboardNavigationBehavior="tab"
      dragAndDropHooks={dragAndDropHooks}
    >
      {draft.items.map((item, i) => {
        const { rung } = findRung(props.library, item.rungId);
        return (
          <Line key={item.rungId} id={item.rungId} textValue={rung.name}>
            <PlanRow
              {...props}
              item={item}
              weighed={plan.items.find((w) => w.id === item.id)}
              warnings={plan.warnings.filter((w) => w.itemId === item.id)}
              first={i === 0}
              last={i === ids.length - 1}
              kept={draft.current ? undefined : draft.isKept(item)}
            />
          </Line>
        );
      })}
    </List>
  );
}

const sameList = <T,>(a: T[], b: T[]) => a.length === b.length && a.every((one, i) => one === b[i]);

interface RowProps extends Props {
  item: PlanItem;
  weighed?: PlanItem;
  warnings: PlanWarning[];
  first: boolean;
  last: boolean;
  /** Stays as it is when the rest is proposed anew; none where nothing is proposed. */
  kept?: boolean;
}

/** Drawn again only when the exercise is another one: what its buttons do never depends on an older drawing. */
const PlanRow = memo(
  Row,
  (a, b) =>
    a.item === b.item &&
    JSON.stringify(a.weighed) === JSON.stringify(b.weighed) &&
    sameList(
      a.warnings.map((w) => w.words),
      b.warnings.map((w) => w.words),
    ) &&
    a.first === b.first &&
    a.last === b.last &&
    a.kept === b.kept &&
    a.library === b.library &&
    a.forbidden === b.forbidden,
);

function Row(props: RowProps) {
  const { item, library, draft } = props;
  const { rung, ladder } = findRung(library, item.rungId);
  const grave = props.warnings.find((w) => w.blocks);
  const changes = props.weighed?.changes ?? item.changes;
  const marks = [
    ...(item.barOverride ? [say("planning.despite-a-contraindication")] : []),
    ...props.warnings.filter((w) => !w.blocks).map((w) => w.words),
    ...changes,
    ...(item.notes ?? []),
  ];
  return (
    <>
      <Grip slot="drag" className="grip" aria-label={say("planning.move-rung", { rung: rung.name })}>
        <span aria-hidden>≡</span>
      </Grip>
      <RungFigure
        rungId={rung.id}
        side={item.doses[0]?.side ?? "both"}
        range={item.doses[0]?.range}
        width={104}
        height={68}
      />
      <div>
        <Name>
          {rung.name}
          {props.kept && <Locked> {say("planning.kept").toLowerCase()}</Locked>}
        </Name>
        {grave ? (
          <Why $grave>{grave.words}</Why>
        ) : (
          <Why style={marks.length > 0 ? { WebkitLineClamp: 1 } : undefined}>{item.for}</Why>
        )}
        {marks.length > 0 && <Why $mark>{marks.join(" · ")}</Why>}
      </div>
      <div className="doses">
        <Doses item={item} rung={rung} onChange={(next) => draft.change(item, next)} />
      </div>
      <span className="pegs">
        <Pegs ladder={ladder} item={item} />
      </span>
      <Minutes>
        {(props.weighed?.minutes ?? item.minutes ?? 0).toFixed(1)}
        <small>{say("planning.min")}</small>
      </Minutes>
      <ItemDialog {...props} rung={rung} />
    </>
  );
}
