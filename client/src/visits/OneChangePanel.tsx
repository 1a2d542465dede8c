import styled from "styled-components";
import type { EaseOffer, OneChange, StopTrigger } from "../api/types";
import { Button } from "../controls/Button";
import { Small, Stack } from "../controls/layout";
import { capital } from "../controls/words";
import { useTakeFocus } from "../controls/useTakeFocus";
import { say } from "../words/say";

const why: Record<StopTrigger, string> = {
  faults: say("visits.the-trunk-gave-way-again"),
  pain: say("visits.pain-over-the-limit"),
  breath: say("visits.breath-still-held"),
  asked: say("visits.make-it-easier"),
};

const kinds: Record<OneChange, string> = {
  cue: say("visits.cue"),
  "shorter-range": say("visits.shorter-range"),
  "fewer-seconds": say("visits.fewer-seconds"),
  "shorter-lever": say("visits.shorter-lever"),
  "more-support": say("visits.more-support"),
  "lower-rung": say("visits.lower-rung"),
};

const Kind = styled.span`
  display: block;
  font: 500 0.9375rem/1.2 ${({ theme }) => theme.font.text};
`;

const First = styled(Button)`
  min-height: 104px;
  text-align: start;
`;

const Other = styled(Button)`
  text-align: start;
  padding: 4px 12px;
`;

const painTitle = ({ before, peak }: { before: number | null; peak: number | null }) =>
  before !== null && peak !== null && peak > before
    ? say("visits.pain-rose-from-before-to", { before, peak })
    : why.pain;

/** Offered when a set is to be stopped: one thing is changed, in order; one tap does it and writes it down. */
export function OneChangePanel(props: {
  trigger: StopTrigger;
  /** Pain before the set and the most in it; null where it was not told. */
  pain: { before: number | null; peak: number | null };
  first: EaseOffer | null;
  others: EaseOffer[];
  onPick: (offer: EaseOffer) => void;
  onStop: () => void;
  onGoOn: () => void;
}) {
  const { trigger, first } = props;
  const title = trigger === "pain" ? painTitle(props.pain) : why[trigger];
  const focus = useTakeFocus<HTMLButtonElement>();
  return (
    <Stack $gap={2} role="alertdialog" aria-label={title}>
      <h2>{title}</h2>
      <Small>{say("visits.change-one-thing")}</Small>
      {first ? (
        <First $big ref={focus} onPress={() => props.onPick(first)}>
          <Kind>{capital(kinds[first.change])}</Kind>
          {offerWords(first)}
        </First>
      ) : (
        <Small>{say("visits.everything-on-the-list-was")}</Small>
      )}
      {props.others.map((offer) => (
        <Other key={offer.change + offer.words} $quiet $small onPress={() => props.onPick(offer)}>
          <Kind>{kinds[offer.change]}</Kind>
          {offerWords(offer)}
        </Other>
      ))}
      <Button $quiet onPress={props.onStop}>
        {trigger === "pain" ? say("visits.stop-this-set") : say("visits.end-this-set-here")}
      </Button>
      <Button $quiet $small onPress={props.onGoOn}>
        {say("visits.go-on-as-it-is")}
      </Button>
    </Stack>
  );
}

const offerWords = (offer: EaseOffer) => (offer.change === "cue" ? `“${offer.words}”` : offer.words);
