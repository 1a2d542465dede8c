import { Dialog, DialogTrigger, ToggleButton } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import type { ForbiddenRung, Library, PlanItem, PlanWarning, Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Note, Quiet, Row, Small, Stack } from "../controls/layout";
import { rangeWords, settingWords, spellWords } from "../controls/words";
import { RungPicker } from "../frame/RungPicker";
import { SwapDialog } from "../frame/SwapDialog";
import { say } from "../words/say";
import { Doses } from "./Doses";
import { SettingFields } from "./SettingFields";
import { swapped } from "./itemOf";
import type { PlanDraft } from "./usePlanDraft";

const Opener = styled(Button)`
  min-width: 48px;
  min-height: 48px;
  padding: 0;
  border-color: transparent;
  background: none;
  font-weight: 700;
`;

const Keep = styled(ToggleButton)`
  min-height: 40px;
  padding: 0 ${({ theme }) => theme.space(3)};
  border: 2px dashed ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  color: inherit;
  font: 500 0.9375rem/1.15 ${({ theme }) => theme.font.text};
  cursor: pointer;
  &[data-selected] {
    border-style: solid;
    background: ${({ theme }) => theme.colour.wash};
    font-weight: 700;
  }
`;

interface Props {
  episodeId: string;
  draft: PlanDraft;
  item: PlanItem;
  rung: Rung;
  weighed?: PlanItem;
  warnings: PlanWarning[];
  library: Library;
  forbidden: ForbiddenRung[];
  first: boolean;
  last: boolean;
  kept?: boolean;
}

/** Everything about one exercise of the plan: why it is there, what to mind, and all that can be changed of it. */
export function ItemDialog(props: Props) {
  const { rung } = props;
  return (
    <DialogTrigger>
      <Opener $quiet aria-label={say("planning.more", { rung: rung.name })}>
        <span aria-hidden>···</span>
      </Opener>
      <Veil isDismissable>
        <Sheet $wide>
          <Dialog aria-label={rung.name}>{({ close }) => <Whole {...props} onClose={close} />}</Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}

function Whole(props: Props & { onClose: () => void }) {
  const { item, rung, library, draft } = props;
  const change = (next: PlanItem) => draft.change(item, next);
  const swap = (rungId: string, reason: string | null) => {
    props.onClose();
    change(swapped(item, rungId, reason, library));
  };
  return (
    <Stack $gap={3}>
      <Row $between>
        <div>
          <h2>
            <Link to={`/library/rungs/${rung.id}?episode=${props.episodeId}`} style={{ color: "inherit" }}>
              {rung.name}
            </Link>
          </h2>
          <Quiet>{item.for}</Quiet>
        </div>
        <Button $quiet $small onPress={props.onClose}>
          {say("planning.done")}
        </Button>
      </Row>
      <Doses item={item} rung={rung} whole onChange={change} />
      <SettingFields
        item={item}
        library={library}
        onChange={(part) =>
          change({ ...item, doses: item.doses.map((d) => ({ ...d, dose: { ...d.dose, ...part } })) })
        }
      />
      <Minds {...props} />
      <section aria-label={say("planning.why-this")}>
        <h3>{say("planning.why-this")}</h3>
        <ul>
          {item.reasons.map((reason) => (
            <li key={reason.ruleId + reason.words}>
              {reason.words} <Quiet>({reason.ruleId})</Quiet>
            </li>
          ))}
        </ul>
      </section>
      <Row $gap={2}>
        {props.kept !== undefined && (
          <Keep
            isSelected={props.kept}
            onChange={(kept) => draft.keep(item, kept)}
            aria-label={say("planning.keep-rung-as-it-is", { rung: rung.name })}
          >
            {props.kept ? say("planning.kept") : say("planning.keep")}
          </Keep>
        )}
        <SwapDialog episodeId={props.episodeId} rungId={rung.id} onPick={(rungId) => swap(rungId, null)} />
        <RungPicker
          label={say("planning.other-rung")}
          library={library}
          forbidden={props.forbidden}
          current={rung.id}
          onPick={swap}
        />
        <Button $quiet $small isDisabled={props.first} onPress={() => draft.move(item.rungId, -1)}>
          {say("planning.earlier")}
        </Button>
        <Button $quiet $small isDisabled={props.last} onPress={() => draft.move(item.rungId, 1)}>
          {say("planning.later")}
        </Button>
        <Button
          $quiet
          $small
          onPress={() => {
            props.onClose();
            draft.change(item, null);
          }}
        >
          {say("planning.leave-out")}
        </Button>
      </Row>
    </Stack>
  );
}

/** What to mind of it: a shorter range, the set-up, what precautions change, warnings. */
function Minds({ item, weighed, warnings }: Props) {
  return (
    <>
      {(weighed ?? item).doses
        .filter((d) => d.rangeEnds)
        .map((d) => (
          <Small key={d.side}>
            <strong>{say("planning.shorter-range")}</strong>
            {d.side !== "both" && `, ${d.side}`}: {rangeWords(d)}
          </Small>
        ))}
      {[...new Set(item.doses.flatMap((d) => settingWords({ ...d.dose, range: 1 })))].map((words) => (
        <Small key={words}>
          <strong>{say("planning.set-up")}</strong> {words}
        </Small>
      ))}
      {[...spellWords(item.spell), ...(item.notes ?? [])].map((words) => (
        <Small key={words}>{words}</Small>
      ))}
      {(weighed?.changes ?? item.changes).map((words) => (
        <Small key={words}>
          <strong>{say("planning.change")}</strong> {words}
        </Small>
      ))}
      {item.barOverride && (
        <Small>
          <strong>{say("planning.prescribed-despite-a-contraindication")}</strong> {item.barOverride}
        </Small>
      )}
      {warnings.map((w) => (
        <Note key={w.ruleId + w.words} grave={w.blocks}>
          {w.words} <Quiet>({w.ruleId})</Quiet>
        </Note>
      ))}
    </>
  );
}
