import { Outlet, useParams } from "react-router";
import { useEpisode } from "../api/queries";
import { useTaken } from "../capture/useCapture";
import { Page, ProblemNote } from "../controls/layout";
import { EpisodeStrip } from "./EpisodeStrip";
import { StationBar } from "./StationBar";

export function VisitFrame() {
  const { episodeId = "", visitId = "" } = useParams();
  const { data: episode, error } = useEpisode(episodeId);
  useTaken(episodeId, visitId);
  if (!episode) {
    return (
      <Page>
        <ProblemNote error={error} />
      </Page>
    );
  }
  return (
    <>
      <EpisodeStrip episode={episode} visitId={visitId} />
      <StationBar episode={episode} visitId={visitId} />
      <Page>
        <Outlet />
      </Page>
    </>
  );
}
