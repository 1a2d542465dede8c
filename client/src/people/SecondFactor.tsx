import { useMutation, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { momentWords } from "../api/clinicTime";
import type { AccountView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

/** Digits of an app beside the password: set up, recovery codes made anew, turned off. */
export function SecondFactor({ account }: { account: AccountView }) {
  const queries = useQueryClient();
  const [codes, setCodes] = useState<string[] | null>(null);
  const refresh = () => queries.invalidateQueries();
  const more = useMutation({
    mutationFn: () => got(api.POST("/api/account/second-factor/recovery-codes")),
    onSuccess: (made) => {
      setCodes(made.codes);
      return refresh();
    },
  });
  const end = useMutation({
    mutationFn: () => got(api.DELETE("/api/account/second-factor")),
    onSuccess: refresh,
  });
  return (
    <section aria-label={say("people.second-factor")}>
      <Stack $gap={3}>
        <h2>{say("people.second-factor")}</h2>
        {codes && <Codes codes={codes} onKept={() => setCodes(null)} />}
        {account.secondFactor ? (
          <>
            <p>{say("people.second-factor-is-on", { left: account.recoveryCodes })}</p>
            <Row>
              <Button $quiet $small isDisabled={more.isPending} onPress={() => more.mutate()}>
                {say("people.new-recovery-codes")}
              </Button>
              <Button $quiet $small isDisabled={end.isPending} onPress={() => end.mutate()}>
                {say("people.turn-it-off")}
              </Button>
            </Row>
          </>
        ) : (
          <>
            <p>
              {account.secondFactorDue
                ? say("people.second-factor-by", { due: momentWords(account.secondFactorDue) })
                : say("people.second-factor-is-off")}
            </p>
            <SetUp
              onDone={(made) => {
                setCodes(made);
                void refresh();
              }}
            />
          </>
        )}
        <ProblemNote error={more.error ?? end.error} />
      </Stack>
    </section>
  );
}

function SetUp(props: { onDone: (codes: string[]) => void }) {
  const [code, setCode] = useState("");
  const begin = useMutation({ mutationFn: () => got(api.POST("/api/account/second-factor")) });
  const confirm = useMutation({
    mutationFn: () => got(api.POST("/api/account/second-factor/confirm", { body: { code } })),
    onSuccess: (made) => props.onDone(made.codes),
  });
  const field = confirm.error instanceof ProblemError ? confirm.error.field("code") : undefined;
  if (!begin.data) {
    return (
      <>
        <Row>
          <Button $quiet isDisabled={begin.isPending} onPress={() => begin.mutate()}>
            {say("people.set-it-up")}
          </Button>
        </Row>
        <ProblemNote error={begin.error} />
      </>
    );
  }
  return (
    <Row style={{ flexWrap: "nowrap", alignItems: "start" }}>
      <QRCodeSVG
        value={begin.data.address}
        size={164}
        marginSize={2}
        title={say("people.for-the-app")}
        role="img"
        style={{ flex: "none" }}
      />
      <div style={{ flex: 1 }}>
        <SubmitForm gap={3} onSubmit={() => confirm.mutate()}>
          <p>{say("people.point-the-app-at-it")}</p>
          <code style={{ overflowWrap: "anywhere" }}>{begin.data.secret}</code>
          <TextField
            label={say("people.six-digits")}
            value={code}
            onChange={setCode}
            inputMode="numeric"
            autoComplete="one-time-code"
            error={field}
          />
          {!field && <ProblemNote error={confirm.error} />}
          <Row>
            <Button type="submit" isDisabled={!code || confirm.isPending}>
              {say("people.put-it-in-force")}
            </Button>
          </Row>
        </SubmitForm>
      </div>
    </Row>
  );
}

/** Shown once: the server keeps them as it keeps passwords. */
function Codes(props: { codes: string[]; onKept: () => void }) {
  return (
    <Note>
      <Stack $gap={3} role="status">
        <strong>{say("people.recovery-codes")}</strong>
        <Small>{say("people.recovery-codes-how")}</Small>
        <ul style={{ columns: 2, fontSize: "1.125rem" }}>
          {props.codes.map((code) => (
            <li key={code}>
              <code>{code}</code>
            </li>
          ))}
        </ul>
        <Row>
          <Button $quiet $small onPress={props.onKept}>
            {say("people.i-have-kept-them")}
          </Button>
        </Row>
      </Stack>
    </Note>
  );
}
