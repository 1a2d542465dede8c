import { Link } from "react-router";
import type { EpisodeView } from "../api/types";
import { Empty, Note } from "../controls/layout";

/** Shown by every station after Ask while a red flag is open. */
export function Closed(props: { episode: EpisodeView; visitId: string }) {
  const open = props.episode.dangerReports.filter((r) => r.clearedAt === null);
  return (
    <Empty title="Closed by a red flag">
      <Note grave>
        {open.map((r) => (
          <p key={r.id}>
            {r.words}
            {r.sameDay && <strong> — send on the same day</strong>}
          </p>
        ))}
      </Note>
      <p style={{ margin: "16px 0" }}>
        No screening, plan or session until a practitioner has recorded what was found and done.
      </p>
      <Link to={`/episodes/${props.episode.id}/visits/${props.visitId}/ask`}>Record it at Ask</Link>
    </Empty>
  );
}
