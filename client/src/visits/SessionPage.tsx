import { useState } from "react";
import { Link } from "react-router";
import { useLibrary, useSession } from "../api/queries";
import { Empty, ProblemNote } from "../controls/layout";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { CheckInForm } from "./CheckInForm";
import { Session } from "./Session";

export function SessionPage() {
  const { episode, visitId, visit } = useVisit();
  const { data: library } = useLibrary();
  const [correcting, setCorrecting] = useState(false);
  const { data: session, error } = useSession(visitId);
  if (!episode || !library || !visit) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  if (error && !session) return <ProblemNote error={error} />;
  if (!session) return null;
  if (!session.plan || session.plan.plan.items.length === 0) {
    return (
      <Empty title={visit.number === 1 ? "Sessions begin at the second visit" : "No plan to run"}>
        <p>
          {visit.number === 1
            ? "On the first visit the plan is made. The next visit runs it."
            : "There is no plan from an earlier visit. Screen and plan first."}
        </p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/plan`}>Go to the plan</Link>
      </Empty>
    );
  }
  if (!visit.checkIn || correcting) {
    return (
      <CheckInForm
        key={visitId}
        episodeId={episode.id}
        visit={visit}
        lastPain={session.lastPain}
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
