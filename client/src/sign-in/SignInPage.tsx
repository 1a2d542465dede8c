import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import type { StartView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { CodeField, NewPasswordField } from "../controls/secrets";
import { Columns, Note, ProblemNote, Small, Stack } from "../controls/layout";
import { SubmitForm } from "../controls/SubmitForm";
import { atRest } from "../frame/atRest";
import { SignInForm } from "../frame/SignInForm";
import { lockHere, useTouched } from "../frame/tabletState";
import { say, sayRich } from "../words/say";

export const Door = styled.main`
  max-width: 940px;
  margin: 0 auto;
  padding: 9vh ${({ theme }) => theme.space(5)} ${({ theme }) => theme.space(8)};
`;

const Word = styled.h1`
  font-size: 2.875rem;
  letter-spacing: -0.01em;
`;

/** @param onRest called once the page stands and the browser rests: while somebody types, what comes next can be fetched */
export function SignInPage(props: { start: StartView; onRest?: () => void }) {
  // Where nobody is signed in nothing is locked.
  useEffect(() => lockHere(false), []);
  const { onRest } = props;
  useEffect(() => (onRest ? atRest(onRest) : undefined), [onRest]);
  useTouched();
  return (
    <Door>
      <Columns $at="1fr 1fr">
        <Stack $gap={4}>
          <Word>{say("sign-in.palaestra")}</Word>
          <p>{say("sign-in.screens-trunk-and-pelvic-control")}</p>
          <Small>{say("sign-in.the-program-proposes-the-licensed")}</Small>
          {window.isSecureContext === false && (
            <Note>
              {sayRich("sign-in.this-connection-is-not-encrypted", {
                strong: (chunks) => <strong>{chunks}</strong>,
              })}
            </Note>
          )}
        </Stack>
        {props.start.needsFirstAdministrator ? <FirstAdministrator /> : <SignIn start={props.start} />}
      </Columns>
    </Door>
  );
}

export function useEnter(enter: () => Promise<unknown>) {
  const queries = useQueryClient();
  useTouched();
  return useMutation({ mutationFn: enter, onSuccess: () => queries.invalidateQueries() });
}

function SignIn({ start }: { start: StartView }) {
  return (
    <Stack $gap={4}>
      <h2>{say("sign-in.sign-in")}</h2>
      <SignInForm demo={start.accounts} />
      <a href="/invitation" style={{ color: "inherit" }}>
        {say("sign-in.i-have-a-code")}
      </a>
    </Stack>
  );
}

function FirstAdministrator() {
  const [code, setCode] = useState("");
  const [name, setName] = useState("");
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const enter = useEnter(() =>
    got(api.POST("/api/first-administrator", { body: { code, name, email, password } })),
  );
  const problem = enter.error instanceof ProblemError ? enter.error : null;
  return (
    <EnterForm
      title={say("sign-in.first-administrator")}
      button={say("sign-in.open-the-clinic")}
      error={problem && problem.fields.length > 0 ? null : enter.error}
      onEnter={() => enter.mutate()}
    >
      <p>{sayRich("sign-in.this-clinic-has-no-account", { code: (chunks) => <code>{chunks}</code> })}</p>
      <CodeField label={say("sign-in.code")} value={code} onChange={setCode} error={problem?.field("code")} />
      <TextField
        label={say("sign-in.name")}
        value={name}
        onChange={setName}
        error={problem?.field("name")}
        autoComplete="name"
      />
      <TextField
        label={say("sign-in.e-mail")}
        value={email}
        onChange={setEmail}
        type="email"
        error={problem?.field("email")}
      />
      <NewPasswordField
        label={say("sign-in.password")}
        value={password}
        onChange={setPassword}
        error={problem?.field("password")}
      />
    </EnterForm>
  );
}

export function EnterForm(props: {
  title: string;
  button: string;
  error: unknown;
  onEnter: () => void;
  children: ReactNode;
}) {
  return (
    <SubmitForm onSubmit={props.onEnter}>
      <h2>{props.title}</h2>
      {props.children}
      <ProblemNote error={props.error} />
      <Button type="submit">{props.button}</Button>
    </SubmitForm>
  );
}
