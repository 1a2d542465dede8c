import { v7 as uuid } from "uuid";
import type { RecordEvent } from "../capture/useCapture";
import { Scale } from "../controls/fields";
import { Quiet } from "../controls/layout";
import { say } from "../words/say";

/** Pain at the end, asked again after ten minutes of rest or walking. */
export function EndPain(props: {
  asked: number | null;
  /** When the last set ended, milliseconds since 1970. */
  since: number | null;
  record: RecordEvent;
}) {
  return (
    <div>
      <Scale
        label={say("visits.pain-now-after-ten-minutes")}
        value={props.asked}
        onChange={(value) =>
          props.record(uuid(), "session-pain-asked", {
            value,
            minutes:
              props.since === null ? 0 : Math.min(240, Math.max(0, (Date.now() - props.since) / 60000)),
          })
        }
      />
      {props.asked === null && <Quiet>{say("visits.not-asked-the-last-value")}</Quiet>}
    </div>
  );
}
