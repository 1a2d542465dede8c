import { useVisit } from "./useVisit";
import { say } from "../words/say";

/** Where a trial is looked at: the findings of a screen, the session of its sets. */
export function useTrialHome(purpose: "screen" | "session" | undefined) {
  const { episodeId, visitId } = useVisit();
  const station = purpose === "session" ? "session" : "findings";
  return {
    path: `/episodes/${episodeId}/visits/${visitId}/${station}`,
    words: say("frame.back-to-the-station", { station }),
  };
}
