import { Link, useLocation, useParams } from "react-router";
import { isAway } from "../api/client";
import { Empty, Page, ProblemNote, Row } from "../controls/layout";
import { say } from "../words/say";
import { placeNames, type Place } from "./stations";
import { Title } from "./Title";

/** A visit that did not come along. */
export const NotAlong = () => (
  <Page>
    <Title words={[say("frame.not-along")]} />
    <Empty title={say("frame.not-along")}>
      <p style={{ marginBottom: 16 }}>{say("frame.today-came-along")}</p>
      <Link to="/">{say("frame.the-day")}</Link>
    </Empty>
  </Page>
);

/** In the place of a view that the server alone can work out, while it is away: what goes on without it. */
export function Waits({ error }: { error: unknown }) {
  const { episodeId = "", visitId = "" } = useParams();
  const place = useLocation().pathname.split("/")[5] as Place;
  if (!isAway(error)) return <ProblemNote error={error} />;
  const visit = `/episodes/${episodeId}/visits/${visitId}`;
  return (
    <Empty title={say("frame.waits-for-the-server", { place: placeNames[place] ?? "" })}>
      <p style={{ marginBottom: 16 }}>{say("frame.goes-on-without")}</p>
      <Row $gap={4}>
        {(["ask", "screen", "session"] as const).map((station) => (
          <Link key={station} to={`${visit}/${station}`}>
            {placeNames[station]}
          </Link>
        ))}
      </Row>
    </Empty>
  );
}
