import { v7 as uuid } from "uuid";
import { findRung } from "../api/queries";
import type { Library, SessionProbe } from "../api/types";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Note, Quiet, Row, Small, Stack } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { doseWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { say, sayRich } from "../words/say";

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
          {sayRich("visits.ready-try-one-up-today", {
            same: same ? say("visits.the-same-harder") : rung.name.toLowerCase(),
            dose: doseWords(first.offer.dose),
            quiet: (chunks) => <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>{chunks}</Quiet>,
          })}
        </h2>
        <Row $gap={4} style={{ alignItems: "flex-end", flexWrap: "nowrap" }}>
          <RungFigure rungId={rung.id} side={first.side} width={170} height={96} />
          <Stack $gap={2}>
            <p>{say("visits.evidence-while-it-is-warm", { evidence: first.offer.evidence.join(" ") })}</p>
            {first.offer.changes.map((change) => (
              <p key={change}>
                <strong>{say("visits.change")}</strong> {change}
              </p>
            ))}
            <Row $gap={3}>
              {offers.map(({ planItemId, side, offer }) => (
                <Button
                  key={planItemId + side}
                  onPress={() => props.record(uuid(), "trial-started", startOf({ planItemId, side, offer }))}
                >
                  {say("visits.try-it-side", { side: side === "both" ? "" : ` ${side} ${sideArrow(side)}` })}
                </Button>
              ))}
              <Button $quiet onPress={props.onPass}>
                {say("visits.not-today")}
              </Button>
            </Row>
            <Small>
              {say("visits.clean-on-side-and-no", {
                side: first.side === "both" ? say("visits.every-rep") : say("visits.both-sides"),
              })}
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
