import { useSyncExternalStore } from "react";
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { isAway } from "../api/client";
import { useStart } from "../api/queries";
import type { HeldStatus } from "../capture/heldAnswers";
import { useOutbox } from "../capture/OutboxContext";
import { useTablet } from "../capture/TabletContext";
import type { Kept } from "../capture/tabletStore";
import { Button } from "../controls/Button";
import { Row, Stack } from "../controls/layout";
import { saveFile } from "../controls/saveFile";
import { say } from "../words/say";
import { useHeldStatus } from "./useHold";

const Mark = styled.span<{ $waiting: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  font-size: 0.875rem;
  white-space: nowrap;
  color: ${({ theme }) => theme.colour.grey};
  &::before {
    content: "";
    width: 12px;
    height: 12px;
    border: 2px solid ${({ theme, $waiting }) => ($waiting ? theme.colour.clay : theme.colour.olive)};
    border-radius: ${({ $waiting }) => ($waiting ? "50%" : "2px")};
    background: ${({ theme, $waiting }) => ($waiting ? "transparent" : theme.colour.olive)};
  }
`;

/** As wide as its words: the bar of steps has no room for more. */
const Plain = styled(AriaButton)`
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  span {
    color: ${({ theme }) => theme.colour.ink};
  }
`;

const Sheet = styled(Popover)`
  max-width: 420px;
  padding: ${({ theme }) => theme.space(5)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  background: ${({ theme }) => theme.colour.sheet};
`;

/** What the server did not accept, as it was tapped and answered, with its reasons. */
const saveRefused = (rows: Kept[], answers: HeldStatus["refused"]) => {
  const all = [
    ...rows.map(({ visitId, event, why }) => ({ visitId, why, event })),
    ...answers.map(({ answer, why }) => ({ visitId: answer.visitId, why, answer })),
  ];
  saveFile("not-accepted.json", new Blob([JSON.stringify(all, null, 2)], { type: "application/json" }));
};

/** Something to know before the page is closed: in a word, and in full where it is pressed. */
function Told(props: { label: string; means: string }) {
  return (
    <span role="status">
      <DialogTrigger>
        <Plain>
          <Mark $waiting>{props.label}</Mark>
        </Plain>
        <Sheet>
          <Dialog aria-label={say("frame.what-is-stored")}>
            <p>{props.means}</p>
          </Dialog>
        </Sheet>
      </DialogTrigger>
    </span>
  );
}

/** Says quietly what has not reached the server yet; nothing needs to be done about it. */
export function SyncMark() {
  const outbox = useOutbox();
  const status = useSyncExternalStore(outbox.subscribe, outbox.getStatus);
  const { held } = useTablet();
  const answers = useHeldStatus();
  const away = isAway(useStart().error) || answers.offline;
  const refused = [...status.refused, ...answers.refused.map((r) => r.why)];
  if (refused.length > 0) {
    return (
      <DialogTrigger>
        <Button $quiet $small>
          {say("frame.refused-not-accepted", { refused: refused.length })}
        </Button>
        <Sheet>
          <Dialog aria-label={say("frame.marks-the-server-did-not")}>
            <Stack $gap={3}>
              <p>{say("frame.the-server-did-not-accept")}</p>
              <ul>
                {[...new Set(refused)].map((why) => (
                  <li key={why}>{why}</li>
                ))}
              </ul>
              <Row>
                <Button $quiet onPress={() => saveRefused(outbox.refusedRows(), answers.refused)}>
                  {say("frame.save-them-as-a-file")}
                </Button>
                <Button
                  $quiet
                  onPress={() => {
                    outbox.dismissRefused();
                    void held.letGo();
                  }}
                >
                  {say("frame.let-go-of-them")}
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </DialogTrigger>
    );
  }
  if (status.inMemory > 0) {
    return (
      <Told label={say("frame.in-memory", { n: status.inMemory })} means={say("frame.in-memory-means")} />
    );
  }
  if (!status.lasting && status.queued === 0) {
    return <Told label={say("frame.not-lasting")} means={say("frame.not-lasting-means")} />;
  }
  const queued = status.queued + answers.waiting;
  const words = status.signedOut
    ? say("frame.queued-kept-here-sign-in", { queued })
    : queued === 0
      ? status.theirs > 0
        ? say("frame.theirs-on-the-way", { theirs: status.theirs })
        : answers.theirs > 0
          ? say("frame.theirs-wait", { theirs: answers.theirs })
          : away
            ? say("frame.server-away")
            : say("frame.all-stored")
      : status.offline || away
        ? say("frame.queued-kept-here-server-away", { queued })
        : say("frame.queued-on-the-way", { queued });
  return (
    <Mark $waiting={queued + status.theirs + answers.theirs > 0 || away} role="status">
      {words}
    </Mark>
  );
}
