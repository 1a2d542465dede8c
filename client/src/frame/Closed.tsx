import { Link } from "react-router";
import type { EpisodeView } from "../api/types";
import { Empty, Note } from "../controls/layout";
import { say } from "../words/say";

/** Whether nothing after Ask may go on: a red flag is open, nobody has asked yet, or the episode is discharged. */
export const isHeld = (episode: EpisodeView) => episode.closed || !!episode.held;

/** Shown by every station after Ask while nothing may go on. */
export function Closed(props: { episode: EpisodeView; visitId: string }) {
  return props.episode.closed ? <ByFlag {...props} /> : <Held {...props} />;
}

/** Not asked yet, discharged, or a question of the body chart is open. */
function Held(props: { episode: EpisodeView; visitId: string }) {
  const { episode } = props;
  const here = `${props.visitId}/`;
  const [to, name] = !episode.asked
    ? [`${here}ask`, say("frame.to-ask")]
    : episode.dischargedOn
      ? [`${here}discharge`, say("frame.to-discharge")]
      : episode.openDrawingId
        ? [`${episode.openDrawingId}/chart`, say("frame.to-chart")]
        : [`${here}ask`, say("frame.to-ask")];
  return (
    <Empty title={episode.asked ? say("frame.held") : say("frame.not-asked-yet")}>
      <p style={{ marginBottom: 16 }}>{episode.held}</p>
      <Link to={`/episodes/${episode.id}/visits/${to}`}>{name}</Link>
    </Empty>
  );
}

/** A red flag is open. */
function ByFlag(props: { episode: EpisodeView; visitId: string }) {
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
