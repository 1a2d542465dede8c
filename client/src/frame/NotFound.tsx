import { Link } from "react-router";
import { Empty, Page, ProblemNote } from "../controls/layout";
import { say } from "../words/say";
import { Title } from "./Title";

/** An address that leads nowhere: said so, with the ways that do. */
export function NotFound({ error }: { error?: unknown }) {
  return (
    <Page>
      <Title words={[say("frame.nothing-here")]} />
      <Empty title={say("frame.nothing-here")}>
        <ProblemNote error={error} />
        <p>{say("frame.nothing-is-at-this-address")}</p>
        <p>
          <Link to="/">{say("frame.the-day")}</Link> · <Link to="/clients">{say("frame.clients")}</Link>
        </p>
      </Empty>
    </Page>
  );
}
