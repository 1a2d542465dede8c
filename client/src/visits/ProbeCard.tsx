import { v7 as uuid } from "uuid";
import { findRung } from "../api/queries";
import type { Library, SessionProbe } from "../api/types";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Note, Quiet, Row, Small, Stack } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { doseWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";

/** One set one up, offered at the end of an exercise: started or passed over with one tap. */
export function ProbeCard(props: {
  offers: SessionProbe[];
  planned: string;
  library: Library;
  record: RecordEvent;
  onPass: () => void;
}) {
  const { offers, library } = props;
  const [first] = offers;
  if (!first) return null;
  const { rung } = findRung(library, first.offer.rungId);
  const same = first.offer.rungId === props.planned;
  return (
    <Note>
      <Stack $gap={3}>
        <h2>
          Ready: try one up today{" "}
          <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
            {same ? "the same, harder" : rung.name.toLowerCase()} · {doseWords(first.offer.dose)}
          </Quiet>
        </h2>
        <Row $gap={4} style={{ alignItems: "flex-end", flexWrap: "nowrap" }}>
          <RungFigure rungId={rung.id} side={first.side} width={170} height={96} />
          <Stack $gap={2}>
            <p>{first.offer.evidence.join(" ")} While it is warm: one set, watched.</p>
            {first.offer.changes.map((change) => (
              <p key={change}>
                <strong>Change:</strong> {change}
              </p>
            ))}
            <Row $gap={3}>
              {offers.map(({ planItemId, side, offer }) => (
                <Button
                  key={planItemId + side}
                  onPress={() => props.record(uuid(), "trial-started", startOf({ planItemId, side, offer }))}
                >
                  Try it{side === "both" ? "" : ` ${side} ${sideArrow(side)}`}
                </Button>
              ))}
              <Button $quiet onPress={props.onPass}>
                Not today
              </Button>
            </Row>
            <Small>
              Clean on {first.side === "both" ? "every rep" : "both sides"} and no more pain by the end: it
              moves up. It does not count as today&apos;s work.
            </Small>
          </Stack>
        </Row>
      </Stack>
    </Note>
  );
}

const startOf = ({ planItemId, side, offer }: SessionProbe) => ({
  rungId: offer.rungId,
  side,
  purpose: "session" as const,
  planItemId,
  set: 1,
  target: offer.dose,
  share: offer.dose.range < 1 ? offer.dose.range : undefined,
  load: offer.dose.load ?? undefined,
  probe: true,
});
