import { useState } from "react";
import styled from "styled-components";
import type { Library, ScreenView, Side } from "../api/types";
import { Button } from "../controls/Button";
import { Row, Small, Stack } from "../controls/layout";
import type { Task } from "./ScreenPage";

const List = styled.ul`
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

/** Any rung of the screened ladders can be a task; barred ones say why they are not offered. */
export function TaskPicker(props: {
  library: Library;
  allowances: ScreenView["allowances"];
  onPick: (task: Task) => void;
}) {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button $quiet onPress={() => setOpen(true)}>
        Choose another task
      </Button>
    );
  }
  const bar = (rungId: string, side: Side) =>
    props.allowances.find((a) => a.rungId === rungId && a.side === side && a.barred);
  return (
    <section aria-label="Choose another task">
      <Stack $gap={4}>
        {props.library.ladders
          .filter((ladder) => ladder.screened)
          .map((ladder) => (
            <div key={ladder.id}>
              <h3>{ladder.name}</h3>
              <List>
                {ladder.rungs.map((rung) => {
                  const sides: Side[] = rung.sides === "each" ? ["left", "right"] : ["both"];
                  const barred = bar(rung.id, sides[0]!);
                  return (
                    <li key={rung.id}>
                      <Row $between>
                        <span style={barred ? { textDecoration: "line-through" } : undefined}>
                          {rung.name}
                        </span>
                        {!barred && (
                          <Row $gap={2}>
                            {sides.map((side) => (
                              <Button
                                key={side}
                                $quiet
                                $small
                                aria-label={`${rung.name}, ${side}`}
                                onPress={() => props.onPick({ rungId: rung.id, side, why: "" })}
                              >
                                {side}
                              </Button>
                            ))}
                          </Row>
                        )}
                      </Row>
                      {barred && <Small>barred · {barred.barWords}</Small>}
                    </li>
                  );
                })}
              </List>
            </div>
          ))}
      </Stack>
    </section>
  );
}
