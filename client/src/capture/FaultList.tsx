import { useState } from "react";
import styled from "styled-components";
import type { Library, Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Small, Stack } from "../controls/layout";

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
        Another fault …
      </Button>
    );
  }
  const faults = [...props.library.faults].sort((a, b) => Number(own(b.code)) - Number(own(a.code)));
  return (
    <Stack $gap={2} role="group" aria-label="All faults">
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
      <Small role="status">{marked ? `Marked: ${marked}.` : "Those of this task come first."}</Small>
    </Stack>
  );
}
