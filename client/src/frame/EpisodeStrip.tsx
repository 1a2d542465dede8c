import { Link, useNavigate } from "react-router";
import styled, { useTheme } from "styled-components";
import type { EpisodeView, VisitView } from "../api/types";
import { dayWords } from "../api/clinicTime";
import { firstStation } from "./stations";
import { SeenBy } from "./SeenBy";
import { say } from "../words/say";

const Strip = styled.header`
  display: grid;
  grid-template-columns: minmax(190px, 270px) 1fr auto;
  gap: ${({ theme }) => theme.space(4)};
  align-items: center;
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(5)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  ${({ theme }) => theme.narrow} {
    grid-template-columns: 1fr auto;
    svg.line {
      grid-column: 1 / -1;
      order: 3;
    }
  }
  @media print {
    display: none;
  }
`;

const Name = styled.p`
  font: 700 1.1875rem/1.2 ${({ theme }) => theme.font.display};
`;

const NameLink = styled(Link)`
  color: inherit;
  text-decoration-color: ${({ theme }) => theme.colour.sand};
`;

export const Tag = styled.span<{ $lapsed: boolean }>`
  display: inline-block;
  margin: 2px 10px 0 0;
  border-bottom: 3px ${({ $lapsed }) => ($lapsed ? "dotted" : "solid")} ${({ theme }) => theme.colour.ochre};
  font-size: 0.875rem;
  line-height: 1.25;
`;

const Home = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 ${({ theme }) => theme.space(3)};
  color: ${({ theme }) => theme.colour.ink};
  font-weight: 600;
`;

/** Nobody needs it while a client waits. */
const Quieter = styled(Home)`
  padding: 0 ${({ theme }) => theme.space(2)};
  color: ${({ theme }) => theme.colour.grey};
  font-weight: 400;
`;

const width = 900;
const height = 74;
const base = 46;
const day = 86_400_000;

/** The time line of the open client: visits as notches, pain as a thin line, weeks numbered, planned visits hollow. */
export function EpisodeStrip(props: { episode: EpisodeView; visitId: string }) {
  const { episode } = props;
  return (
    <Strip>
      <div>
        <Name>
          <NameLink to={`/clients/${episode.clientId}`}>{episode.intake.name}</NameLink>
        </Name>
        {episode.dischargedOn && (
          <Tag $lapsed>{say("frame.discharged-on", { day: dayWords(episode.dischargedOn) })}</Tag>
        )}
        {episode.tags.map((tag) => (
          <Tag key={tag.id} $lapsed={tag.lapsed}>
            {tag.words}
          </Tag>
        ))}
      </div>
      <Line {...props} />
      <nav aria-label={say("frame.other-places")}>
        <Home to={`/library?episode=${episode.id}`}>{say("frame.library")}</Home>
        <Home to="/">{say("frame.the-day")}</Home>
        <Quieter to={`/episodes/${episode.id}/visits/${props.visitId}/amendments`}>
          {say("frame.amendments")}
        </Quieter>
        <SeenBy episodeId={episode.id} />
      </nav>
    </Strip>
  );
}

function Line({ episode, visitId }: { episode: EpisodeView; visitId: string }) {
  const { colour, font } = useTheme();
  const navigate = useNavigate();
  const times = episode.visits.map((v) => new Date(v.plannedAt).getTime());
  const start = Math.min(...times);
  const weeks = Math.max(6, Math.ceil((Math.max(...times, Date.now()) - start) / (7 * day)) + 1);
  const x = (time: number) => 30 + ((time - start) / (weeks * 7 * day)) * (width - 60);
  const painful = episode.visits.filter((v) => v.pain !== null);
  const open = (visit: VisitView) =>
    void navigate(`/episodes/${episode.id}/visits/${visit.id}/${firstStation(episode, visit)}`);
  return (
    <svg
      className="line"
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      aria-label={say("frame.visits-of-this-episode")}
      role="group"
    >
      <line x1={20} x2={width - 10} y1={base} y2={base} stroke={colour.ink} strokeWidth={2} />
      {Array.from({ length: weeks }, (_, i) => (
        <g key={i}>
          <line
            x1={x(start + (i + 1) * 7 * day)}
            x2={x(start + (i + 1) * 7 * day)}
            y1={base - 3}
            y2={base + 3}
            stroke={colour.sand}
          />
          <text
            x={x(start + (i + 0.5) * 7 * day)}
            y={base + 22}
            fontSize={13}
            textAnchor="middle"
            fill={colour.grey}
            fontFamily={font.text}
          >
            {i === 0 ? say("frame.week-1") : i + 1}
          </text>
        </g>
      ))}
      {painful.length > 1 && (
        <polyline
          fill="none"
          stroke={colour.clay}
          strokeWidth={2}
          points={painful
            .map((v) => `${x(new Date(v.plannedAt).getTime())},${base - 10 - (v.pain ?? 0) * 3}`)
            .join(" ")}
        />
      )}
      {episode.visits.map((visit) => (
        <Notch
          key={visit.id}
          visit={visit}
          at={x(new Date(visit.plannedAt).getTime())}
          here={visit.id === visitId}
          onOpen={() => open(visit)}
        />
      ))}
    </svg>
  );
}

function Notch(props: { visit: VisitView; at: number; here: boolean; onOpen: () => void }) {
  const { colour, font } = useTheme();
  const { visit, at, here } = props;
  const tone = here ? colour.clay : colour.ink;
  const label = say("frame.visit-number-plannedat-state-pain", {
    number: visit.number,
    plannedAt: dayWords(visit.plannedAt),
    state: visit.state,
    pain: visit.pain === null ? "" : say("frame.pain-pain", { pain: visit.pain }),
  });
  return (
    <g
      role="link"
      tabIndex={0}
      aria-label={label}
      aria-current={here ? "true" : undefined}
      style={{ cursor: "pointer" }}
      onClick={props.onOpen}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") props.onOpen();
      }}
    >
      <rect x={at - 22} y={4} width={44} height={64} fill="transparent" />
      <path
        d={`M${at - 7} ${base + 7}L${at + 7} ${base + 7}L${at} ${base - 8}Z`}
        fill={visit.state === "planned" ? colour.paper : tone}
        stroke={tone}
        strokeWidth={2}
      />
      {here && (
        <text
          x={at}
          y={14}
          fontSize={13}
          fontWeight={700}
          textAnchor="middle"
          fill={colour.clay}
          fontFamily={font.text}
        >
          {visit.pain === null ? dayWords(visit.plannedAt) : say("frame.pain-pain-2", { pain: visit.pain })}
        </text>
      )}
    </g>
  );
}
