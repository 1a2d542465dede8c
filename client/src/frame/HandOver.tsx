import { useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Small } from "../controls/layout";
import { useSignOut } from "./useSignOut";
import { say } from "../words/say";

/** Hands the tablet to a colleague: signs out at this very place; what was done stays under the name of who did it. */
export function HandOver() {
  const { data } = useStart();
  const leave = useSignOut();
  return (
    <section aria-label={say("frame.who-is-here")}>
      <Row $between>
        <Small>{say("frame.with-signedinas-the-next-one", { signedInAs: data?.signedInAs ?? "" })}</Small>
        <Button $quiet $small onPress={() => leave.mutate()}>
          {say("frame.hand-over-the-tablet")}
        </Button>
      </Row>
      <ProblemNote error={leave.error} />
    </section>
  );
}
