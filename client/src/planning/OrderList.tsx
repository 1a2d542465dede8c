import { memo } from "react";
import { GridList, GridListItem } from "react-aria-components";
import styled from "styled-components";
import { findRung, positionName } from "../api/queries";
import type { Library, PlanItem } from "../api/types";
import { Quiet } from "../controls/layout";
import { Grip } from "../controls/Grip";
import { useReorder } from "../controls/useReorder";
import { say } from "../words/say";

const List = styled(GridList)`
  display: grid;
`;

const Item = styled(GridListItem)`
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) auto;
  align-items: center;
  gap: ${({ theme }) => theme.space(2)};
  min-height: 48px;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  outline-offset: -3px;
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
  }
  &[data-dragging] {
    opacity: 0.5;
  }
`;

/** The exercises in their order; moved by dragging, or by keys from the grip. */
export const OrderList = memo(Rows, (a, b) => lines(a.items) === lines(b.items) && a.library === b.library);

/** What of a plan shows here. */
function lines(items: PlanItem[]) {
  return items.map((item) => `${item.rungId} ${item.minutes}`).join("/");
}

function Rows(props: { items: PlanItem[]; library: Library; onOrder: (rungIds: string[]) => void }) {
  const ids = props.items.map((item) => item.rungId);
  const dragAndDropHooks = useReorder(ids, props.onOrder);
  return (
    <List aria-label={say("planning.exercises-in-order")} dragAndDropHooks={dragAndDropHooks}>
      {props.items.map((item) => {
        const { rung } = findRung(props.library, item.rungId);
        return (
          <Item key={item.rungId} id={item.rungId} textValue={rung.name}>
            <Grip slot="drag" aria-label={say("planning.move-rung", { rung: rung.name })}>
              ≡
            </Grip>
            <span>
              {rung.name}{" "}
              <Quiet style={{ fontSize: 14 }}>
                {positionName(props.library, rung.position).toLowerCase()}
              </Quiet>
            </span>
            <Quiet>{(item.minutes ?? 0).toFixed(1)}</Quiet>
          </Item>
        );
      })}
    </List>
  );
}
