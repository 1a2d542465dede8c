import { lazy, Suspense, useEffect, useState } from "react";
import { Dialog } from "react-aria-components";
import styled from "styled-components";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { glossary, type Entry } from "./glossary";
import { say } from "../words/say";

const CardsDialog = lazy(() => import("./CardsDialog").then((loaded) => ({ default: loaded.CardsDialog })));

const List = styled.dl`
  margin: 0;
  max-height: 50dvh;
  overflow-y: auto;
  dt {
    font-weight: 700;
  }
  dd {
    margin: 0 0 ${({ theme }) => theme.space(2)};
  }
`;

/** Words of which the term or the line has what is sought. */
export function wordsWith(sought: string): Entry[] {
  const part = sought.trim().toLowerCase();
  return Object.values(glossary).filter((e) => `${e.term} ${e.means}`.toLowerCase().includes(part));
}

const opened = new EventTarget();

/** Opens the help from anywhere. */
export const openHelp = () => opened.dispatchEvent(new Event("open"));

/** The words of the trade with a line each, behind `?` everywhere; a live trial has its own list there. */
export function HelpDialog() {
  const [open, setOpen] = useState(false);
  const [sought, setSought] = useState("");
  const [cards, setCards] = useState(false);
  useEffect(() => {
    const show = () => setOpen(true);
    const pressed = (e: KeyboardEvent) => {
      if (e.key !== "?" || e.ctrlKey || e.metaKey || e.altKey) return;
      if ((e.target as HTMLElement).closest("input, textarea, [contenteditable], [role=dialog]")) return;
      if (document.querySelector("[data-live], [data-lock]")) return;
      show();
    };
    opened.addEventListener("open", show);
    document.addEventListener("keydown", pressed);
    return () => {
      opened.removeEventListener("open", show);
      document.removeEventListener("keydown", pressed);
    };
  }, []);
  const found = wordsWith(sought);
  return (
    <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
      <Sheet>
        <Dialog aria-label={say("frame.help")}>
          <Stack $gap={3}>
            <Row $between>
              <h2>{say("frame.words-and-what-they-mean")}</h2>
              <Button $quiet $small onPress={() => setOpen(false)}>
                {say("frame.close-help")}
              </Button>
            </Row>
            <Small>{say("frame.keys-everywhere")}</Small>
            <Row>
              <Button $quiet $small onPress={() => setCards(true)}>
                {say("frame.show-the-cards")}
              </Button>
            </Row>
            <TextField label={say("frame.find-a-word")} value={sought} onChange={setSought} />
            {/* Scrolled by keys too. */}
            <List tabIndex={0} aria-label={say("frame.words-and-what-they-mean")}>
              {found.map((e) => (
                <div key={e.term}>
                  <dt>{e.term}</dt>
                  <dd>{e.means}</dd>
                </div>
              ))}
            </List>
            {found.length === 0 && <p role="status">{say("frame.no-such-word")}</p>}
          </Stack>
        </Dialog>
        {cards && (
          <Suspense>
            <CardsDialog onClose={() => setCards(false)} />
          </Suspense>
        )}
      </Sheet>
    </Veil>
  );
}
