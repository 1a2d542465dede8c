import { useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Small } from "../controls/layout";
import { useSignOut } from "./useSignOut";

/** Hands the tablet to a colleague: signs out at this very place; what was done stays under the name of who did it. */
export function HandOver() {
  const { data } = useStart();
  const leave = useSignOut();
  return (
    <section aria-label="Who is here">
      <Row $between>
        <Small>With {data?.signedInAs}. The next one signs in here and goes on.</Small>
        <Button $quiet $small onPress={() => leave.mutate()}>
          Hand over the tablet
        </Button>
      </Row>
      <ProblemNote error={leave.error} />
    </section>
  );
}
