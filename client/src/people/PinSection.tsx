import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { startQuery } from "../api/queries";
import type { AccountView } from "../api/types";
import { askKey, useTablet } from "../capture/TabletContext";
import { Button } from "../controls/Button";

import { ProblemNote, Row, Stack } from "../controls/layout";
import { PinField } from "../controls/secrets";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

/** Digits that open a tablet that locked itself, on this tablet also without the server. */
export function PinSection({ account }: { account: AccountView }) {
  const queries = useQueryClient();
  const { keys } = useTablet();
  const [pin, setPin] = useState("");
  const set = useMutation({
    mutationFn: async (value: string | null) => {
      await got(api.PUT("/api/account/pin", { body: { value } }));
      const { pinMark } = await queries.fetchQuery({ ...startQuery, staleTime: 0 });
      if (value === null) await keys.forgetPin();
      else await keys.keepPin(value, pinMark ?? null, askKey);
    },
    onSuccess: () => {
      setPin("");
      return queries.invalidateQueries();
    },
  });
  const field = set.error instanceof ProblemError ? set.error.field("value") : undefined;
  return (
    <section aria-label={say("people.pin")}>
      <SubmitForm gap={3} onSubmit={() => set.mutate(pin)}>
        <Stack $gap={3}>
          <h2>{say("people.pin")}</h2>
          <p>{account.hasPin ? say("people.pin-is-set") : say("people.pin-is-not-set")}</p>
          <PinField
            label={say("people.new-pin")}
            hint={say("people.six-to-twelve-digits")}
            value={pin}
            onChange={setPin}
            error={field}
          />
          {!field && <ProblemNote error={set.error} />}
          <Row>
            <Button $quiet type="submit" isDisabled={!pin || set.isPending}>
              {say("people.keep-the-pin")}
            </Button>
            {account.hasPin && (
              <Button $quiet isDisabled={set.isPending} onPress={() => set.mutate(null)}>
                {say("people.without-a-pin")}
              </Button>
            )}
          </Row>
        </Stack>
      </SubmitForm>
    </section>
  );
}
