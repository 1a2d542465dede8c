import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button as AriaButton, Disclosure, DisclosurePanel } from "react-aria-components";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import type { VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { Scale, TextField } from "../controls/fields";
import { ProblemNote, Row, Stack } from "../controls/layout";
import { say } from "../words/say";

const Opener = styled(AriaButton)`
  min-height: 40px;
  padding: 0;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.ink};
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
`;

/** What pain is compared with, set by the practitioner after a review; the reason is kept with it. */
export function ReferenceFields({ visit, now }: { visit: VisitView; now: number }) {
  const queries = useQueryClient();
  const [value, setValue] = useState(now);
  const [reason, setReason] = useState("");
  const save = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/visits/{visitId}/reference", {
          params: { path: { visitId: visit.id } },
          body: { value, reason, version: visit.version },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  return (
    <Disclosure>
      <Opener slot="trigger">{say("visits.set-another-usual-pain-after")}</Opener>
      <DisclosurePanel>
        <Stack $gap={3}>
          <Scale
            label={say("visits.usual-pain-to-compare-with")}
            value={value}
            onChange={setValue}
            error={problem?.field("value")}
          />
          <TextField
            label={say("visits.why")}
            hint={say("visits.what-the-review-found-it")}
            value={reason}
            onChange={setReason}
            error={problem?.field("reason")}
          />
          <ProblemNote error={save.error} />
          <Row>
            <Button $small isDisabled={save.isPending} onPress={() => save.mutate()}>
              {say("visits.set-it")}
            </Button>
          </Row>
        </Stack>
      </DisclosurePanel>
    </Disclosure>
  );
}
