import { useSyncExternalStore } from "react";
import { Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { useOutbox } from "../capture/OutboxContext";
import { Button } from "../controls/Button";
import { Stack } from "../controls/layout";
import { say } from "../words/say";

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

const Sheet = styled(Popover)`
  max-width: 420px;
  padding: ${({ theme }) => theme.space(5)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  background: ${({ theme }) => theme.colour.sheet};
`;

/** Says quietly what has not reached the server yet; nothing needs to be done about it. */
export function SyncMark() {
  const outbox = useOutbox();
  const status = useSyncExternalStore(outbox.subscribe, outbox.getStatus);
  if (status.refused.length > 0) {
    return (
      <DialogTrigger>
        <Button $quiet $small>
          {say("frame.refused-not-accepted", { refused: status.refused.length })}
        </Button>
        <Sheet>
          <Dialog aria-label={say("frame.marks-the-server-did-not")}>
            <Stack $gap={3}>
              <p>{say("frame.the-server-did-not-accept")}</p>
              <ul>
                {[...new Set(status.refused)].map((why) => (
                  <li key={why}>{why}</li>
                ))}
              </ul>
              <Button $quiet onPress={() => outbox.dismissRefused()}>
                {say("frame.let-go-of-them")}
              </Button>
            </Stack>
          </Dialog>
        </Sheet>
      </DialogTrigger>
    );
  }
  const words = status.signedOut
    ? say("frame.queued-kept-here-sign-in", { queued: status.queued })
    : status.queued === 0
      ? say("frame.all-stored")
      : status.offline
        ? say("frame.queued-kept-here-server-away", { queued: status.queued })
        : say("frame.queued-on-the-way", { queued: status.queued });
  return (
    <Mark $waiting={status.queued > 0} role="status">
      {words}
    </Mark>
  );
}
