import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { keepClinicTime } from "../api/clinicTime";
import { startQuery } from "../api/queries";
import { knowContent } from "../api/versions";
import { useOutbox } from "../capture/OutboxContext";
import { useTablet } from "../capture/TabletContext";
import { Button } from "../controls/Button";
import { Note, Page, Small, Stack } from "../controls/layout";
import { PinField } from "../controls/secrets";
import { SubmitForm } from "../controls/SubmitForm";
import { lockHere, openedWith, touchedNow } from "../frame/tabletState";
import { layOut } from "../frame/useTakeAlong";
import { say } from "../words/say";

class WrongPin extends Error {}
class NothingAlong extends Error {}

/** The server is away, and the tablet has just been switched on: the PIN opens what came along of today. */
export function OpenAlone(props: { who: string; onRest: () => void }) {
  const queries = useQueryClient();
  const outbox = useOutbox();
  const { keys, days, held } = useTablet();
  const [pin, setPin] = useState("");
  const open = useMutation({
    mutationFn: async () => {
      const key = await keys.openByPin(pin);
      if (!key) throw new WrongPin();
      const kept = await days.read(key);
      // Not waited for: nobody answers.
      void outbox.begin(key);
      void held.begin(key);
      if (!kept) throw new NothingAlong();
      if (kept.start.time) keepClinicTime(kept.start.time);
      if (kept.content) knowContent(kept.content);
      lockHere(false);
      touchedNow();
      openedWith(pin);
      layOut(queries, { ...kept, start: { ...kept.start, locked: false } });
      // Asked for until it answers.
      void queries.invalidateQueries({ queryKey: startQuery.queryKey });
    },
    onError: () => setPin(""),
  });
  // What lies behind is loaded while the digits are typed.
  useEffect(() => props.onRest(), [props]);
  const byPin = keys.opensAlone(props.who);
  return (
    <Page>
      <Stack $gap={4} style={{ maxWidth: 420, margin: "0 auto" }}>
        <h1>{say("sign-in.the-server-is-away")}</h1>
        {open.error instanceof NothingAlong ? (
          <Note>{say("sign-in.nothing-came-along")}</Note>
        ) : byPin ? (
          <>
            <p>{say("sign-in.open-by-pin", { name: props.who })}</p>
            <SubmitForm onSubmit={() => open.mutate()}>
              <PinField
                label={say("sign-in.pin")}
                value={pin}
                onChange={setPin}
                error={open.error instanceof WrongPin ? say("sign-in.wrong-pin") : undefined}
                focused
              />
              <Button type="submit" isDisabled={open.isPending || !pin}>
                {say("sign-in.open")}
              </Button>
            </SubmitForm>
          </>
        ) : (
          <Note>{say("sign-in.no-pin-here", { name: props.who })}</Note>
        )}
        <Small>{say("sign-in.asked-for-again")}</Small>
      </Stack>
    </Page>
  );
}
