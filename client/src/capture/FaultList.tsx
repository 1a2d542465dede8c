import { useState } from "react";
import styled from "styled-components";
import type { Library, Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Small, Stack } from "../controls/layout";
import { say } from "../words/say";

const All = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(2)};
`;

/** Every fault there is as a list, for those who prefer one and for what this task does not usually show. */
export function FaultList(props: { library: Library; rung: Rung; onMark: (code: string) => void }) {
  const [open, setOpen] = useState(false);
  const [marked, setMarked] = useState<string | null>(null);
  const own = (code: string) => props.rung.faults.includes(code);
  if (!open) {
    return (
      <Button $quiet onPress={() => setOpen(true)}>
        {say("capture.another-fault")}
      </Button>
    );
  }
  const faults = [...props.library.faults].sort((a, b) => Number(own(b.code)) - Number(own(a.code)));
  return (
    <Stack $gap={2} role="group" aria-label={say("capture.all-faults")}>
      <All>
        {faults.map((fault) => (
          <Button
            key={fault.code}
            $quiet
            $small
            onPress={() => {
              props.onMark(fault.code);
              setMarked(fault.name);
            }}
          >
            {fault.name}
          </Button>
        ))}
      </All>
      <Small role="status">
        {marked ? say("capture.marked-marked", { marked }) : say("capture.those-of-this-task-come")}
      </Small>
    </Stack>
  );
}
