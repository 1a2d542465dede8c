import { useState } from "react";
import { Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";
import type { Figure, ForbiddenRung, Ladder, Library, Rung } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Sheet, Veil } from "../controls/Modal";
import { Row, Small, Stack } from "../controls/layout";
import { FigureView } from "../figure/FigureView";
import { useFigureSheet } from "../api/queries";
import { Override } from "./Override";
import { say } from "../words/say";

const Rungs = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: ${({ theme }) => theme.space(2)};
`;

const Pick = styled(Button)`
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  width: 100%;
  padding: ${({ theme }) => theme.space(2)};
  text-align: start;
  border-width: 1px;
`;

interface Props {
  label: string;
  library: Library;
  forbidden: ForbiddenRung[];
  current?: string;
  onPick: (rungId: string, barOverride: string | null) => void;
}

/** Rungs to choose from, each with its drawing. A barred one asks for a written reason and a second look. */
export function RungPicker(props: Props) {
  const [barred, setBarred] = useState<Rung | null>(null);
  return (
    <DialogTrigger onOpenChange={() => setBarred(null)}>
      <Button $quiet $small>
        {props.label}
      </Button>
      <Veil isDismissable>
        <Sheet $wide>
          <Dialog aria-label={props.label}>
            {({ close }) => {
              const pick = (rungId: string, reason: string | null) => {
                props.onPick(rungId, reason);
                close();
              };
              return barred ? (
                <Override
                  rung={barred}
                  why={props.forbidden.find((f) => f.rungId === barred.id)?.why ?? ""}
                  onBack={() => setBarred(null)}
                  onPick={(reason) => pick(barred.id, reason)}
                />
              ) : (
                <Choices {...props} onBarred={setBarred} onPick={pick} onClose={close} />
              );
            }}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}

function Choices(
  props: Props & {
    onBarred: (rung: Rung) => void;
    onClose: () => void;
  },
) {
  const [find, setFind] = useState("");
  const { data: figures } = useFigureSheet("right");
  const figureOf = (id: string) => figures?.find((f) => f.rungId === id)?.figure;
  const trained = props.library.ladders.filter((l) => l.trained);
  const own = trained.filter((l) => !props.current || l.rungs.some((r) => r.id === props.current));
  const others = trained.filter((l) => !own.includes(l));
  const found = [...own, ...others]
    .map((ladder) => ({ ...ladder, rungs: matching(ladder, find) }))
    .filter((ladder) => ladder.rungs.length > 0);
  return (
    <Stack $gap={4}>
      <Row $between>
        <h2>{props.label}</h2>
        <Button $quiet $small onPress={props.onClose}>
          {say("frame.close")}
        </Button>
      </Row>
      <TextField label={say("frame.find-by-name")} value={find} onChange={setFind} />
      {found.length === 0 && <p>{say("frame.no-rung-is-called-that")}</p>}
      {found.map((ladder) => (
        <section key={ladder.id} aria-label={ladder.name}>
          <h3>{ladder.name}</h3>
          <Small>{ladder.about}</Small>
          <Rungs>
            {ladder.rungs.map((rung) => {
              const bar = props.forbidden.find((f) => f.rungId === rung.id);
              return (
                <li key={rung.id}>
                  <Pick
                    $quiet
                    isDisabled={rung.id === props.current}
                    onPress={() => (bar ? props.onBarred(rung) : props.onPick(rung.id, null))}
                  >
                    <RungThumb figure={figureOf(rung.id)} />
                    <span>
                      {bar ? <s>{rung.name}</s> : rung.name}
                      {rung.id === props.current && <Small as="span"> {say("frame.in-the-plan")}</Small>}
                      {bar && <Small>{say("frame.barred-why", { why: bar.why })}</Small>}
                    </span>
                  </Pick>
                </li>
              );
            })}
          </Rungs>
        </section>
      ))}
    </Stack>
  );
}

/** All rungs of a ladder when its own name fits, else those whose names do. */
function matching(ladder: Ladder, find: string) {
  const word = find.trim().toLowerCase();
  return ladder.name.toLowerCase().includes(word)
    ? ladder.rungs
    : ladder.rungs.filter((rung) => rung.name.toLowerCase().includes(word));
}

function RungThumb(props: { figure?: Figure }) {
  return (
    <div style={{ width: 96, height: 60 }} aria-hidden>
      {props.figure && <FigureView figure={props.figure} />}
    </div>
  );
}
