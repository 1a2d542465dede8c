import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { api, got, isAway, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { StartView } from "../api/types";
import { useOutbox } from "../capture/OutboxContext";
import { askKey, useTablet } from "../capture/TabletContext";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { PasswordField, PinField } from "../controls/secrets";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";
import { Cover, Pane } from "./Cover";
import { SignInForm } from "./SignInForm";
import { lockedHere, lockHere, onLock, takeOpenedWith, touchedNow } from "./tabletState";
import { useIdle } from "./useIdle";
import { useSignOut } from "./useSignOut";

/** So often the server is asked for while it is away. */
const againMs = 2000;

/**
 * Covers a tablet that was left alone; what runs goes on underneath. It is opened by the PIN or password of whoever is signed
 * in, the PIN also without the server, or taken over by somebody else.
 */
export function TabletLock({ start }: { start: StartView }) {
  const queries = useQueryClient();
  const [locked, setLocked] = useState(() => lockedHere());
  // Opened without the server: told to it when it is back.
  const [given, setGiven] = useState<string | null>(takeOpenedWith);
  const shown = locked || start.locked;
  const lock = useCallback(() => {
    lockHere(true);
    setGiven(null);
    void api.POST("/api/lock").catch(() => undefined);
  }, []);
  useIdle(start.lockMinutes, !shown, lock);
  const opened = useCallback(() => {
    lockHere(false);
    touchedNow();
    void queries.invalidateQueries();
  }, [queries]);
  useEffect(
    () =>
      onLock((now) => {
        setLocked(now);
        void queries.invalidateQueries({ queryKey: keys.start });
      }),
    [queries],
  );
  useEffect(() => {
    if (!start.locked || given === null) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const tell = () =>
      void got(api.POST("/api/unlock", { body: { pin: given } })).then(
        () => {
          setGiven(null);
          opened();
        },
        (problem: unknown) => {
          if (isAway(problem)) timer = setTimeout(tell, againMs);
          else setGiven(null);
        },
      );
    tell();
    return () => clearTimeout(timer);
  }, [start.locked, given, opened]);
  return (
    <Cover isOpen={shown && given === null} isKeyboardDismissDisabled data-lock>
      <Pane>
        <Dialog>
          <Locked
            start={start}
            onOpened={opened}
            onOpenedAlone={(pin) => {
              setGiven(pin);
              opened();
            }}
          />
        </Dialog>
      </Pane>
    </Cover>
  );
}

function Locked(props: { start: StartView; onOpened: () => void; onOpenedAlone: (pin: string) => void }) {
  const { start } = props;
  const outbox = useOutbox();
  const leave = useSignOut();
  const [other, setOther] = useState(false);
  const [byPassword, setByPassword] = useState(!start.hasPin);
  if (other) {
    return (
      <Stack $gap={4}>
        <Heading slot="title">{say("frame.who-takes-the-tablet")}</Heading>
        <SignInForm
          demo={start.accounts}
          button={say("frame.take-it-over")}
          before={() => outbox.flush().catch(() => undefined)}
          onSignedIn={props.onOpened}
        />
        <Row>
          <Button $quiet onPress={() => setOther(false)}>
            {say("frame.back")}
          </Button>
        </Row>
      </Stack>
    );
  }
  return (
    <Stack $gap={4}>
      <Heading slot="title">{say("frame.locked")}</Heading>
      <p>{say("frame.signed-in-as-name", { name: start.signedInAs ?? "" })}</p>
      <Open {...props} byPassword={byPassword} />
      <Row>
        {start.hasPin && (
          <Button $quiet $small onPress={() => setByPassword(!byPassword)}>
            {byPassword ? say("frame.by-pin-instead") : say("frame.by-password-instead")}
          </Button>
        )}
        <Button $quiet $small onPress={() => setOther(true)}>
          {say("frame.somebody-else")}
        </Button>
        <Button
          $quiet
          $small
          onPress={() =>
            leave.mutate(undefined, {
              onSuccess: () => {
                props.onOpened();
              },
            })
          }
        >
          {say("frame.sign-out")}
        </Button>
      </Row>
      <ProblemNote error={leave.error} />
    </Stack>
  );
}

/** The server was not there, and this tablet does not know the PIN. */
class WrongAlone extends Error {}

function Open(props: {
  start: StartView;
  byPassword: boolean;
  onOpened: () => void;
  onOpenedAlone: (pin: string) => void;
}) {
  const { start, byPassword } = props;
  const who = start.signedInAs ?? "";
  const queries = useQueryClient();
  const { keys: tablet } = useTablet();
  const [pin, setPin] = useState("");
  const [password, setPassword] = useState("");
  const open = useMutation({
    mutationFn: async () => {
      try {
        await got(api.POST("/api/unlock", { body: byPassword ? { password } : { pin } }));
        if (!byPassword) await tablet.keepPin(pin, start.pinMark ?? null, askKey).catch(() => undefined);
        props.onOpened();
      } catch (problem) {
        if (!isAway(problem) || byPassword || !tablet.opensAlone(who)) throw problem;
        if (!(await tablet.openByPin(pin))) throw new WrongAlone();
        props.onOpenedAlone(pin);
      }
    },
    onError: (problem) => {
      // Wrong too often: the sign-in is over.
      if (problem instanceof ProblemError && problem.status === 401) {
        lockHere(false);
        void tablet.forgetPin();
        void queries.invalidateQueries({ queryKey: keys.start });
      }
      setPin("");
    },
  });
  const problem = open.error instanceof ProblemError ? open.error : null;
  const wrong =
    problem?.field("pin") ?? (open.error instanceof WrongAlone ? say("frame.wrong-pin") : undefined);
  return (
    <SubmitForm onSubmit={() => open.mutate()}>
      {byPassword ? (
        <PasswordField
          label={say("frame.password")}
          value={password}
          onChange={setPassword}
          error={problem?.field("password")}
          focused
        />
      ) : (
        <PinField label={say("frame.pin")} value={pin} onChange={setPin} error={wrong} focused />
      )}
      {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
      {isAway(problem) && <Small>{say("frame.without-the-server-by-pin")}</Small>}
      <Button type="submit" isDisabled={open.isPending || (byPassword ? !password : !pin)}>
        {say("frame.open")}
      </Button>
    </SubmitForm>
  );
}
