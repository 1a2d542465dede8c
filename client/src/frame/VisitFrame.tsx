import { useState } from "react";
import { Outlet, useLocation, useParams } from "react-router";
import { isAway } from "../api/client";
import { useEpisode } from "../api/queries";
import { useTaken } from "../capture/useCapture";
import { Page } from "../controls/layout";
import { NotFound } from "./NotFound";
import { EpisodeStrip } from "./EpisodeStrip";
import { QuietContext } from "./quiet";
import { StationBar } from "./StationBar";
import { Title } from "./Title";
import { placeNames, type Place } from "./stations";
import { NotAlong } from "./Waits";

export function VisitFrame() {
  const { episodeId = "", visitId = "" } = useParams();
  const { data: episode, error } = useEpisode(episodeId);
  useTaken(episodeId, visitId);
  const [quiet, setQuiet] = useState(false);
  const place = useLocation().pathname.split("/")[5] as Place;
  if (error && !episode) return isAway(error) ? <NotAlong /> : <NotFound error={error} />;
  if (!episode) return <Page />;
  if (!episode.visits.some((visit) => visit.id === visitId)) return <NotFound />;
  return (
    <>
      {/* By number: browsers write titles down, and keep them when somebody signs out. */}
      <Title words={[placeNames[place], episode.clientNumber]} />
      {!quiet && (
        <>
          <EpisodeStrip episode={episode} visitId={visitId} />
          <StationBar episode={episode} visitId={visitId} />
        </>
      )}
      <QuietContext value={setQuiet}>
        <Page>
          <Outlet />
        </Page>
      </QuietContext>
    </>
  );
}
