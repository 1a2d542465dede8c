import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { useStart } from "../api/queries";
import { useOutbox } from "../capture/OutboxContext";
import { Button } from "../controls/Button";
import { Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { say } from "../words/say";
import { SignInForm } from "./SignInForm";

/**
 * Hands the tablet to a colleague, who signs in over what is on screen: it goes on underneath. What was done until then stays
 * under the name of who did it.
 */
export function HandOver() {
  const { data } = useStart();
  const outbox = useOutbox();
  const [open, setOpen] = useState(false);
  return (
    <section aria-label={say("frame.who-is-here")}>
      <Row $between>
        <Small>{say("frame.with-signedinas-the-next-one", { signedInAs: data?.signedInAs ?? "" })}</Small>
        <Button $quiet $small onPress={() => setOpen(true)}>
          {say("frame.hand-over-the-tablet")}
        </Button>
      </Row>
      <Veil isOpen={open} onOpenChange={setOpen}>
        <Sheet>
          <Dialog>
            <Stack $gap={4}>
              <Heading slot="title">{say("frame.who-takes-the-tablet")}</Heading>
              <Small>{say("frame.what-is-on-screen-goes-on")}</Small>
              <SignInForm
                demo={data?.accounts ?? []}
                button={say("frame.take-it-over")}
                before={() => outbox.flush()}
                onSignedIn={() => setOpen(false)}
              />
              <Row>
                <Button $quiet onPress={() => setOpen(false)}>
                  {say("frame.back")}
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </Veil>
    </section>
  );
}
