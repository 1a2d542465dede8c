import { NavLink, useLocation } from "react-router";
import styled from "styled-components";
import type { EpisodeView } from "../api/types";
import { HelpMark } from "./HelpMark";
import { SyncMark } from "./SyncMark";
import { StationMenu } from "./StationMenu";
import { beside, placeNames, stationOrder, type Place } from "./stations";
import { say } from "../words/say";

const Bar = styled.nav`
  display: flex;
  align-items: stretch;
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
    margin-inline-start: auto;
    display: flex;
    align-items: center;
    padding-inline-start: 16px;
  }
  .short {
    display: none;
  }
  /* Room for two words, not for twelve: the step that is open, and the one after it. */
  @media (max-width: 68.75em) {
    .all {
      display: none;
    }
    .short {
      display: flex;
      align-items: center;
      gap: ${({ theme }) => theme.space(3)};
    }
  }
  /* Forced colours paint every border: only the one that is open keeps a line. */
  @media (forced-colors: active) {
    a.all {
      border-color: Canvas;
    }
    a.all[aria-current="page"] {
      border-color: Highlight;
    }
  }
  @media print {
    display: none;
  }
`;

const Next = styled(NavLink)`
  && {
    min-height: 40px;
    border: 2px solid ${({ theme }) => theme.colour.ink};
    border-radius: ${({ theme }) => theme.radius};
    color: ${({ theme }) => theme.colour.ink};
    font-weight: 500;
  }
`;

/** Where one is in a visit, and where one can go. */
export function StationBar(props: { episode: EpisodeView; visitId: string }) {
  const base = `/episodes/${props.episode.id}/visits/${props.visitId}`;
  const here = useLocation()
    .pathname.slice(base.length + 1)
    .split("/")[0] as Place;
  return (
    <Bar aria-label={say("frame.stations-of-the-visit")}>
      {stationOrder.map((station) => (
        <Name key={station} base={base} place={station} />
      ))}
      <Short base={base} here={here} />
      <span className="end">
        {beside.map((place) => (
          <Name key={place} base={base} place={place} />
        ))}
        <SyncMark />
        <HelpMark inMenu />
      </span>
    </Bar>
  );
}

const Name = (props: { base: string; place: Place }) => (
  <NavLink className="all" to={`${props.base}/${props.place}`}>
    {placeNames[props.place]}
  </NavLink>
);

function Short({ base, here }: { base: string; here: Place }) {
  const at = stationOrder.findIndex((station) => station === here);
  const next = at < 0 ? undefined : stationOrder[at + 1];
  return (
    <span className="short">
      <StationMenu base={base} here={here} words={placeNames[here] ?? say("frame.steps")} />
      {next && <Next to={`${base}/${next}`}>{say("frame.next-station", { station: placeNames[next] })}</Next>}
    </span>
  );
}
