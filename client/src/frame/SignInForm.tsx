import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import type { StartView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Note, ProblemNote, Small, Stack } from "../controls/layout";
import { PasswordField } from "../controls/secrets";
import { SubmitForm } from "../controls/SubmitForm";
import { say, sayRich } from "../words/say";

/** E-mail and password, and the digits of the app where the account has them. */
export function SignInForm(props: {
  demo: StartView["accounts"];
  button?: string;
  /** Before the sign-in: what is still under the name of before. */
  before?: () => Promise<unknown>;
  onSignedIn?: () => void;
}) {
  const queries = useQueryClient();
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const enter = useMutation({
    mutationFn: async () => {
      await props.before?.();
      return got(api.POST("/api/sign-in", { body: { email, password, code: code || null } }));
    },
    onSuccess: () => {
      props.onSignedIn?.();
      return queries.invalidateQueries();
    },
  });
  const problem = enter.error instanceof ProblemError ? enter.error : null;
  const [asked, setAsked] = useState(false);
  if (problem?.type === "second-factor" && !asked) setAsked(true);
  return (
    <Stack $gap={4}>
      <SubmitForm onSubmit={() => enter.mutate()}>
        <TextField
          label={say("frame.e-mail")}
          value={email}
          onChange={(mail) => {
            setEmail(mail);
            setAsked(false);
          }}
          type="email"
          autoComplete="username"
        />
        <PasswordField label={say("frame.password")} value={password} onChange={setPassword} />
        {asked && (
          <TextField
            label={say("frame.six-digits-from-the-app")}
            hint={say("frame.or-a-recovery-code")}
            value={code}
            onChange={setCode}
            autoComplete="one-time-code"
            focused
          />
        )}
        <ProblemNote error={enter.error} />
        <Button type="submit" isDisabled={enter.isPending}>
          {props.button ?? say("frame.sign-in")}
        </Button>
      </SubmitForm>
      {props.demo.length > 0 && (
        <Note>
          <p>
            {sayRich("frame.demo-invented-clinic-invented-clients", {
              strong: (chunks) => <strong>{chunks}</strong>,
            })}
          </p>
          <Stack $gap={2} style={{ marginTop: 8 }}>
            {props.demo.map((account) => (
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
            {props.demo.map((a) => `${a.email} · ${a.password}`).join("   ")}
          </Small>
        </Note>
      )}
    </Stack>
  );
}
