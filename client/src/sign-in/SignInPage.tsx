import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import type { StartView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Note, ProblemNote, Small, Stack } from "../controls/layout";

const Door = styled.main`
  max-width: 940px;
  margin: 0 auto;
  padding: 9vh ${({ theme }) => theme.space(5)} ${({ theme }) => theme.space(8)};
`;

const Word = styled.h1`
  font-size: 46px;
  letter-spacing: -0.01em;
`;

export function SignInPage(props: { start: StartView }) {
  return (
    <Door>
      <Columns $at="1fr 1fr">
        <Stack $gap={4}>
          <Word>Palaestra</Word>
          <p>
            Screens trunk and pelvic control, counts the work that was done before the trunk gave way, and
            plans the next step, side by side.
          </p>
          <Small>
            The program proposes; the licensed practitioner decides. Local rules and scope of practice come
            first.
          </Small>
          {window.isSecureContext === false && (
            <Note>
              <strong>This connection is not encrypted.</strong> Whoever is on the network can read along, and
              the camera does not work. Ask the administrator for the address that begins with https.
            </Note>
          )}
        </Stack>
        {props.start.needsFirstAdministrator ? <FirstAdministrator /> : <SignIn start={props.start} />}
      </Columns>
    </Door>
  );
}

function useEnter(enter: () => Promise<unknown>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: enter, onSuccess: () => queries.invalidateQueries() });
}

function SignIn({ start }: { start: StartView }) {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const enter = useEnter(() => got(api.POST("/api/sign-in", { body: { email, password } })));
  return (
    <EnterForm title="Sign in" button="Sign in" error={enter.error} onEnter={() => enter.mutate()}>
      <TextField label="E-mail" value={email} onChange={setEmail} type="email" autoComplete="username" />
      <TextField
        label="Password"
        value={password}
        onChange={setPassword}
        type="password"
        autoComplete="current-password"
      />
      {start.demo && (
        <Note>
          <p>
            <strong>Demo.</strong> Invented clinic, invented clients. Enter as:
          </p>
          <Stack $gap={2} style={{ marginTop: 8 }}>
            {start.accounts.map((account) => (
              <Button
                key={account.email}
                $quiet
                onPress={() => {
                  setEmail(account.email);
                  setPassword(account.password);
                }}
              >
                {account.name}, {account.role.split(",")[0]}
              </Button>
            ))}
          </Stack>
          <Small style={{ marginTop: 8 }}>
            {start.accounts.map((a) => `${a.email} · ${a.password}`).join("   ")}
          </Small>
        </Note>
      )}
    </EnterForm>
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
      title="First administrator"
      button="Open the clinic"
      error={problem && problem.fields.length > 0 ? null : enter.error}
      onEnter={() => enter.mutate()}
    >
      <p>
        This clinic has no account yet. Whoever has the code becomes its administrator. It was told where the
        server was started, and stands in the file <code>first-admin-code</code> of the data folder.
      </p>
      <TextField
        label="Code"
        hint="Four groups of five; dashes may be left out."
        value={code}
        onChange={setCode}
        error={problem?.field("code")}
        autoComplete="one-time-code"
      />
      <TextField
        label="Name"
        value={name}
        onChange={setName}
        error={problem?.field("name")}
        autoComplete="name"
      />
      <TextField
        label="E-mail"
        value={email}
        onChange={setEmail}
        type="email"
        error={problem?.field("email")}
      />
      <TextField
        label="Password"
        hint="At least ten characters; a few words are good."
        value={password}
        onChange={setPassword}
        type="password"
        error={problem?.field("password")}
        autoComplete="new-password"
      />
    </EnterForm>
  );
}

function EnterForm(props: {
  title: string;
  button: string;
  error: unknown;
  onEnter: () => void;
  children: ReactNode;
}) {
  return (
    <Form
      onSubmit={(e) => {
        e.preventDefault();
        props.onEnter();
      }}
    >
      <Stack $gap={4}>
        <h2>{props.title}</h2>
        {props.children}
        <ProblemNote error={props.error} />
        <Button type="submit">{props.button}</Button>
      </Stack>
    </Form>
  );
}
