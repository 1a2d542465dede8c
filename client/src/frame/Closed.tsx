import { Link } from "react-router";
import type { EpisodeView } from "../api/types";
import { Empty, Note } from "../controls/layout";
import { say } from "../words/say";

/** Shown by every station after Ask while a red flag is open. */
export function Closed(props: { episode: EpisodeView; visitId: string }) {
  const open = props.episode.dangerReports.filter((r) => r.clearedAt === null);
  return (
    <Empty title={say("frame.closed-by-a-red-flag")}>
      <Note grave>
        {open.map((r) => (
          <p key={r.id}>
            {r.words}
            {r.sameDay && <strong> {say("frame.send-on-the-same-day")}</strong>}
          </p>
        ))}
      </Note>
      <p style={{ margin: "16px 0" }}>{say("frame.no-screening-plan-or-session")}</p>
      <Link to={`/episodes/${props.episode.id}/visits/${props.visitId}/ask`}>
        {say("frame.record-it-at-ask")}
      </Link>
    </Empty>
  );
}
