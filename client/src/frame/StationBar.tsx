import { NavLink } from "react-router";
import styled from "styled-components";
import type { EpisodeView } from "../api/types";
import { SyncMark } from "./SyncMark";
import { stationNames, stationOrder } from "./stations";
import { say } from "../words/say";

const Bar = styled.nav`
  display: flex;
  align-items: stretch;
  overflow-x: auto;
  padding: 0 ${({ theme }) => theme.space(3)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  a {
    display: flex;
    align-items: center;
    min-height: 48px;
    padding: 0 ${({ theme }) => theme.space(4)};
    border-bottom: 4px solid transparent;
    color: ${({ theme }) => theme.colour.grey};
    text-decoration: none;
    white-space: nowrap;
  }
  a[aria-current="page"] {
    border-color: ${({ theme }) => theme.colour.clay};
    color: ${({ theme }) => theme.colour.ink};
    font-weight: 700;
  }
  .end {
    margin-left: auto;
    display: flex;
    align-items: center;
    padding-left: 16px;
  }
  /* A tablet held upright has two rows: nothing lies past its edge. */
  @media (min-width: 600px) and (max-width: 900px) {
    flex-wrap: wrap;
  }
  @media print {
    display: none;
  }
`;

export function StationBar(props: { episode: EpisodeView; visitId: string }) {
  return (
    <Bar aria-label={say("frame.stations-of-the-visit")}>
      {stationOrder.map((station) => (
        <NavLink key={station} to={`/episodes/${props.episode.id}/visits/${props.visitId}/${station}`}>
          {stationNames[station]}
        </NavLink>
      ))}
      <span className="end">
        <NavLink to={`/episodes/${props.episode.id}/visits/${props.visitId}/note`}>
          {say("frame.notes")}
        </NavLink>
        <NavLink to={`/episodes/${props.episode.id}/visits/${props.visitId}/chart`}>
          {say("frame.body-chart")}
        </NavLink>
        <NavLink to={`/episodes/${props.episode.id}/visits/${props.visitId}/progress`}>
          {say("frame.progress")}
        </NavLink>
        <NavLink to={`/episodes/${props.episode.id}/visits/${props.visitId}/letter`}>
          {say("frame.letter")}
        </NavLink>
        <SyncMark />
      </span>
    </Bar>
  );
}
