import { useEffect } from "react";
import { Dialog, Heading } from "react-aria-components";
import { useBlocker } from "react-router";
import { Button } from "../controls/Button";
import { Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { say } from "../words/say";
import { isUnsaved } from "./unsaved";

/** Asks before a page is left on which something was written and not stored. */
export function UnsavedDialog() {
  const blocker = useBlocker(
    // Another part of a page is another address too: the form there is gone as well.
    ({ currentLocation: here, nextLocation: there }) =>
      isUnsaved() && here.pathname + here.search !== there.pathname + there.search,
  );
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (isUnsaved()) event.preventDefault();
    };
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, []);
  return (
    <Veil isOpen={blocker.state === "blocked"} onOpenChange={() => blocker.reset?.()}>
      <Sheet>
        <Dialog role="alertdialog">
          <Stack $gap={4}>
            <Heading slot="title">{say("frame.not-saved-yet")}</Heading>
            <Small>{say("frame.leaving-loses-it")}</Small>
            <Row>
              <Button onPress={() => blocker.reset?.()}>{say("frame.stay-here")}</Button>
              <Button $quiet onPress={() => blocker.proceed?.()}>
                {say("frame.leave-without-saving")}
              </Button>
            </Row>
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}
