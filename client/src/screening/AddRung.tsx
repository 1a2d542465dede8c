import { useState } from "react";
import styled from "styled-components";
import type { Library, ScreenView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

const List = styled.ul`
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

/** Any exercise can be a screen: every rung of every ladder can be put in; barred ones say why they are not offered. */
export function AddRung(props: {
  library: Library;
  allowances: ScreenView["allowances"];
  /** Ids of tasks that are in already. */
  taken: string[];
  onAdd: (taskId: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [ladderId, setLadderId] = useState<string | null>(null);
  if (!open) {
    return (
      <Button $quiet onPress={() => setOpen(true)}>
        {say("screening.add-any-exercise")}
      </Button>
    );
  }
  const ladders = props.library.ladders.filter((l) => l.trained);
  const ladder = ladders.find((l) => l.id === ladderId);
  const bars = (rungId: string) => {
    const own = props.allowances.filter((a) => a.rungId === rungId);
    return own.length > 0 && own.every((a) => a.barred) ? own[0] : undefined;
  };
  return (
    <section aria-label={say("screening.add-any-exercise")}>
      <Stack $gap={3}>
        <Choice
          label={say("screening.from-which-ladder")}
          value={ladderId}
          onChange={setLadderId}
          options={ladders.map((l) => ({ value: l.id, label: l.name }))}
        />
        {ladder && (
          <List>
            {ladder.rungs.map((rung) => {
              const barred = bars(rung.id);
              const id = `rung-${rung.id}`;
              return (
                <li key={rung.id}>
                  <Row $between>
                    <span style={barred ? { textDecoration: "line-through" } : undefined}>{rung.name}</span>
                    {!barred && !props.taken.includes(id) && (
                      <Button
                        $quiet
                        $small
                        aria-label={say("screening.add-rung", { rung: rung.name })}
                        onPress={() => props.onAdd(id)}
                      >
                        {say("screening.add")}
                      </Button>
                    )}
                  </Row>
                  {barred && (
                    <Small>{say("screening.barred-barwords", { barWords: barred.barWords ?? "" })}</Small>
                  )}
                </li>
              );
            })}
          </List>
        )}
      </Stack>
    </section>
  );
}
