import { useParams } from "react-router";
import { useEpisode } from "../api/queries";

/** The episode and visit in the address. */
export function useVisit() {
  const { episodeId = "", visitId = "" } = useParams();
  const { data: episode, error } = useEpisode(episodeId);
  const visit = episode?.visits.find((v) => v.id === visitId);
  return { episodeId, visitId, episode, visit, error };
}
