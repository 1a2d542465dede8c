import { Dialog, Heading } from "react-aria-components";
import type { StartView } from "../api/types";
import { Button } from "../controls/Button";
import { Row, Stack } from "../controls/layout";
import { say } from "../words/say";
import { Cover, Pane } from "./Cover";
import { leave } from "./leaving";
import { SignInForm } from "./SignInForm";
import { lockHere, touchedNow } from "./tabletState";

/** Over what is open when a sign-in has ended by itself: what was typed is still underneath. */
export function SignInAgain(props: { start: StartView; who: string }) {
  return (
    <Cover isOpen isKeyboardDismissDisabled data-lock>
      <Pane>
        <Dialog>
          <Stack $gap={4}>
            <Heading slot="title">{say("frame.sign-in-again")}</Heading>
            <p>{say("frame.sign-in-has-ended", { name: props.who })}</p>
            <SignInForm
              demo={props.start.accounts}
              onSignedIn={() => {
                // Left alone meanwhile, it is locked underneath: the password has opened that too.
                lockHere(false);
                touchedNow();
              }}
            />
            <Row>
              <Button $quiet $small onPress={leave}>
                {say("frame.leave-what-is-open")}
              </Button>
            </Row>
          </Stack>
        </Dialog>
      </Pane>
    </Cover>
  );
}
