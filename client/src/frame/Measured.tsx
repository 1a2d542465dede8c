import { Link } from "react-router";
import type { LiveTrialState } from "../capture/liveTrial";
import { Row, Small } from "../controls/layout";
import { useVisit } from "./useVisit";
import { instrumentNames } from "../capture/instrumentNames";
import { useKeptTrace, useTraces } from "./useTraces";
import { say } from "../words/say";

/** What was measured in a trial, and the ways to add to it. */
export function Measured(props: {
  /** In which the trial was done; not always the one that is open. */
  visitId: string;
  trialId: string;
  photos: string[];
}) {
  const { visitId, trialId, photos } = props;
  const { episodeId } = useVisit();
  const { data: traces } = useTraces(visitId);
  const base = `/episodes/${episodeId}/visits/${visitId}`;
  return (
    <Row $gap={4}>
      {traces
        ?.filter((t) => t.trialId === trialId)
        .map((t) => (
          <Link key={t.id} to={`${base}/traces/${t.id}`}>
            {say("frame.see-the-trace-of-the", { instrumentNames: instrumentNames[t.instrument] })}
          </Link>
        ))}
      {photos.map((id, i) => (
        <Link key={id} to={`${base}/trials/${trialId}/photos/${id}`}>
          {say("frame.see-the-photograph", { number: photos.length > 1 ? ` ${i + 1}` : "" })}
        </Link>
      ))}
      <Link to={`${base}/trials/${trialId}/trace-file`}>{say("frame.trace-from-a-file")}</Link>
      <Link to={`${base}/trials/${trialId}/photo`}>{say("frame.measure-a-photograph")}</Link>
    </Row>
  );
}

/** The same for the trial that has just ended: its trace is kept by itself. */
export function JustMeasured({ trial }: { trial: LiveTrialState }) {
  const { visitId } = useVisit();
  const keep = useKeptTrace(trial, visitId);
  return (
    <>
      <Measured visitId={visitId} trialId={trial.trialId} photos={trial.photos.map((p) => p.id)} />
      {keep.isPending && <Small role="status">{say("frame.the-trace-is-being-kept")}</Small>}
      {keep.error && (
        <Small role="status">{say("frame.no-trace-was-kept-message", { message: keep.error.message })}</Small>
      )}
    </>
  );
}
