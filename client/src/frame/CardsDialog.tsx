import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";
import { Button } from "../controls/Button";
import { Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { say } from "../words/say";
import screen from "./cards/screen.jpg";
import findings from "./cards/findings.jpg";
import plan from "./cards/plan.jpg";
import decide from "./cards/decide.jpg";

const cards = [
  { picture: screen, name: say("frame.card-screen"), says: say("frame.card-screen-says") },
  { picture: findings, name: say("frame.card-findings"), says: say("frame.card-findings-says") },
  { picture: plan, name: say("frame.card-plan"), says: say("frame.card-plan-says") },
  { picture: decide, name: say("frame.card-decide"), says: say("frame.card-decide-says") },
];

const Picture = styled.img`
  display: block;
  width: 100%;
  aspect-ratio: 16 / 10;
  border: 1px solid ${({ theme }) => theme.colour.rule};
`;

/** A visit in four cards, each a picture of the demo's own screens. */
export function CardsDialog(props: { onClose: () => void }) {
  const [at, setAt] = useState(0);
  const card = cards[at]!;
  const last = at === cards.length - 1;
  return (
    <Veil isOpen onOpenChange={(open) => !open && props.onClose()} isDismissable>
      <Sheet>
        <Dialog aria-label={say("frame.a-visit-in-four-cards")}>
          <Stack $gap={3}>
            <Row $between>
              <Heading slot="title">{card.name}</Heading>
              <Small role="status">{say("frame.card-at-of-all", { at: at + 1, all: cards.length })}</Small>
            </Row>
            <Picture src={card.picture} alt={say("frame.picture-of-name", { name: card.name })} />
            <p>{card.says}</p>
            <Row $between>
              <Button $quiet onPress={props.onClose}>
                {last ? say("frame.close-help") : say("frame.skip")}
              </Button>
              <Row $gap={2}>
                <Button $quiet isDisabled={at === 0} onPress={() => setAt(at - 1)}>
                  {say("frame.back")}
                </Button>
                <Button onPress={() => (last ? props.onClose() : setAt(at + 1))}>
                  {last ? say("frame.begin") : say("frame.next-card")}
                </Button>
              </Row>
            </Row>
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}
