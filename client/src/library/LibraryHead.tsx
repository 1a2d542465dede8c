import { Link } from "react-router";
import styled from "styled-components";
import { useEpisode } from "../api/queries";
import { Quiet } from "../controls/layout";
import { firstStation } from "../frame/stations";
import { say } from "../words/say";

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(5)};
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(5)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    color: ${({ theme }) => theme.colour.ink};
    font-weight: 600;
  }
`;

const Title = styled.p`
  margin-inline-end: auto;
  font: 700 1.3125rem/1.2 ${({ theme }) => theme.font.display};
`;

/** Where one is, for whom, and the way back. */
export function LibraryHead(props: {
  episodeId: string | null;
  clientName: string | null;
  children?: React.ReactNode;
}) {
  return (
    <Head>
      <Title as="p">
        {say("library.library")}{" "}
        {props.clientName && (
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("library.for-clientname", { clientName: props.clientName })}
          </Quiet>
        )}
      </Title>
      {props.children}
      {props.episodeId && <Back episodeId={props.episodeId} />}
      <Link to="/">{say("library.the-day")}</Link>
    </Head>
  );
}

function Back({ episodeId }: { episodeId: string }) {
  const { data: episode } = useEpisode(episodeId);
  const visit = episode?.visits.findLast((v) => v.state !== "planned") ?? episode?.visits[0];
  return episode && visit ? (
    <Link to={`/episodes/${episodeId}/visits/${visit.id}/${firstStation(episode, visit)}`}>
      {say("library.back-to-intake", { intake: episode.intake.name })}
    </Link>
  ) : null;
}
