import { lazy, Suspense, useState } from "react";
import { useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { Note, Row } from "../controls/layout";
import { say } from "../words/say";
import { cardsSeen, hasSeenCards } from "./cardsSeen";

const CardsDialog = lazy(() => import("./CardsDialog").then((loaded) => ({ default: loaded.CardsDialog })));

/** Offers the cards to whoever is new on this device; once. */
export function FirstCards() {
  const who = useStart().data?.signedInAs ?? null;
  const [open, setOpen] = useState(false);
  const [done, setDone] = useState(false);
  if (who === null) return null;
  const over = () => {
    cardsSeen(who);
    setDone(true);
    setOpen(false);
  };
  if (done || hasSeenCards(who)) return null;
  return (
    <div style={{ marginBottom: 16 }}>
      <Note>
        <Row $between>
          <p>{say("frame.new-here")}</p>
          <Row $gap={2}>
            <Button $small onPress={() => setOpen(true)}>
              {say("frame.show-the-cards")}
            </Button>
            <Button $quiet $small onPress={over}>
              {say("frame.not-now")}
            </Button>
          </Row>
        </Row>
      </Note>
      {open && (
        <Suspense>
          <CardsDialog onClose={over} />
        </Suspense>
      )}
    </div>
  );
}
