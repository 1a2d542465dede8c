import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { useEpisode, useFigureSheet, useLibrary, usePlan } from "../api/queries";
import type { Figure, ForbiddenRung, Ladder, Rung } from "../api/types";
import { Page, ProblemNote, Quiet, Row, Small } from "../controls/layout";
import { FigureView } from "../figure/FigureView";
import { LibraryHead } from "./LibraryHead";
import { say } from "../words/say";

const Board = styled.div`
  columns: 290px;
  column-gap: ${({ theme }) => theme.space(8)};
`;

const Upright = styled.section`
  break-inside: avoid;
  margin-bottom: ${({ theme }) => theme.space(8)};
  ol {
    margin-top: ${({ theme }) => theme.space(2)};
    list-style: none;
    border: solid ${({ theme }) => theme.colour.ink};
    border-width: 0 3px;
    padding: ${({ theme }) => theme.space(2)} 0;
  }
`;

const RungLink = styled(Link)<{ $barred: boolean }>`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(3)};
  align-items: end;
  min-height: 64px;
  padding: 2px ${({ theme }) => theme.space(2)} 0;
  border-bottom: 4px ${({ $barred }) => ($barred ? "dashed" : "solid")} ${({ theme }) => theme.colour.sand};
  color: ${({ theme }) => theme.colour.ink};
  text-decoration: none;
  line-height: 1.15;
  span {
    padding-bottom: ${({ theme }) => theme.space(2)};
  }
  small {
    display: block;
    color: ${({ theme }) => theme.colour.clay};
    font-size: 0.875rem;
  }
  &:hover strong,
  &:focus-visible strong {
    text-decoration: underline;
  }
  strong {
    font-weight: 500;
  }
  &[aria-current] strong {
    font-weight: 700;
  }
`;

/** All ladders with all rungs, hardest on top, each with its drawing; what is barred for the open client is struck. */
export function LibraryPage() {
  const { data: library } = useLibrary();
  const [search] = useSearchParams();
  const episodeId = search.get("episode");
  const { data: episode } = useEpisode(episodeId);
  const { data: plan } = usePlan(episodeId);
  const { data: figures, error } = useFigureSheet("right");
  const present = new Set(plan?.revisions.at(-1)?.plan.items.map((item) => item.rungId));
  return (
    <>
      <LibraryHead episodeId={episodeId} clientName={episode?.intake.name ?? null} />
      <Page>
        <ProblemNote error={error} />
        <Row $between style={{ marginBottom: 16 }}>
          <Small>{say("library.each-ladder-from-its-easiest")}</Small>
          <Link to="/library/sheet" style={{ color: "inherit" }}>
            {say("library.all-drawings-on-one-sheet")}
          </Link>
        </Row>
        <Board>
          {library?.ladders.filter(stands).map((ladder) => (
            <OneLadder
              key={ladder.id}
              ladder={ladder}
              episodeId={episodeId}
              present={present}
              forbidden={plan?.forbidden ?? []}
              figureOf={(id) => figures?.find((f) => f.rungId === id)?.figure}
            />
          ))}
        </Board>
      </Page>
    </>
  );
}

interface LadderProps {
  ladder: Ladder;
  episodeId: string | null;
  present: Set<string>;
  forbidden: ForbiddenRung[];
  figureOf: (id: string) => Figure | undefined;
}

function OneLadder(props: LadderProps) {
  const { ladder } = props;
  return (
    <Upright aria-label={ladder.name}>
      <h2>{ladder.name}</h2>
      <Small>{ladder.about}</Small>
      <ol reversed>
        {[...ladder.rungs].reverse().map((rung) => (
          <OneRung key={rung.id} rung={rung} {...props} />
        ))}
      </ol>
    </Upright>
  );
}

function OneRung(props: LadderProps & { rung: Rung }) {
  const { rung } = props;
  const figure = props.figureOf(rung.id);
  const bar = props.forbidden.find((f) => f.rungId === rung.id);
  const present = props.present.has(rung.id);
  return (
    <li>
      <RungLink
        to={rungPath(rung.id, props.episodeId)}
        $barred={bar !== undefined}
        aria-current={present || undefined}
      >
        <div style={{ height: 66 }} aria-hidden>
          {figure && <FigureView figure={figure} />}
        </div>
        <span>
          <strong>{bar ? <s>{rung.name}</s> : rung.name}</strong>
          {bar && <small>{say("library.barred")}</small>}
          {present && <Quiet> {say("library.in-the-plan")}</Quiet>}
        </span>
      </RungLink>
    </li>
  );
}

/** Not one whose rungs have moved to others. */
export const stands = (ladder: Ladder) => !ladder.successors;

export const rungPath = (rungId: string, episodeId: string | null) =>
  `/library/rungs/${rungId}${episodeId ? `?episode=${episodeId}` : ""}`;
