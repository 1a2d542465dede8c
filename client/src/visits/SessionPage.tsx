import { useState } from "react";
import { Link } from "react-router";
import { useLibrary, useSession } from "../api/queries";
import { Empty } from "../controls/layout";
import { Closed, isHeld } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { CheckInForm } from "./CheckInForm";
import { Session } from "./Session";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

export function SessionPage() {
  const { episode, visitId, visit } = useVisit();
  const { data: library } = useLibrary();
  const [correcting, setCorrecting] = useState(false);
  const { data: session, error } = useSession(visitId);
  if (!episode || !library || !visit) return null;
  if (isHeld(episode)) return <Closed episode={episode} visitId={visitId} />;
  if (!session) return <Waits error={error} />;
  if (!session.plan || session.plan.plan.items.length === 0) {
    return (
      <Empty
        title={visit.number === 1 ? say("visits.sessions-begin-at-the-second") : say("visits.no-plan-to-run")}
      >
        <p>
          {visit.number === 1 ? say("visits.on-the-first-visit-the") : say("visits.there-is-no-plan-from")}
        </p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/plan`}>{say("visits.go-to-the-plan")}</Link>
      </Empty>
    );
  }
  const policy = library.policies.find((p) => p.id === episode.intake.policyId);
  if (!visit.checkIn || correcting) {
    return (
      <CheckInForm
        key={visitId}
        episodeId={episode.id}
        visit={visit}
        lastPain={session.lastPain}
        noTrainingFrom={policy?.judgement?.noTrainingFrom ?? null}
        onDone={() => setCorrecting(false)}
      />
    );
  }
  return (
    <Session
      key={visitId}
      episode={episode}
      visitId={visitId}
      visit={visit}
      session={session}
      plan={session.plan.plan}
      library={library}
      onCorrect={() => setCorrecting(true)}
    />
  );
}
