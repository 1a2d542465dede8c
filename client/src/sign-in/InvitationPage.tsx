import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import { Button } from "../controls/Button";
import { CodeField, NewPasswordField } from "../controls/secrets";
import { ProblemNote, Small, Stack } from "../controls/layout";
import { Door, EnterForm, useEnter } from "./SignInPage";
import { say } from "../words/say";

/** Where a code becomes an account, or a new password for one there is. */
export function InvitationPage({ code }: { code: string }) {
  return <Door>{code ? <Choose code={code} /> : <TypeCode />}</Door>;
}

function TypeCode() {
  const [code, setCode] = useState("");
  return (
    <EnterForm
      title={say("sign-in.with-a-code")}
      button={say("sign-in.go-on")}
      error={null}
      onEnter={() => location.assign(`/invitation/${encodeURIComponent(code.trim())}`)}
    >
      <CodeField label={say("sign-in.code")} value={code} onChange={setCode} />
    </EnterForm>
  );
}

function Choose({ code }: { code: string }) {
  const [password, setPassword] = useState("");
  const path = { code };
  const { data, error } = useQuery({
    queryKey: keys.invitation(code),
    queryFn: () => got(api.GET("/api/invitations/{code}", { params: { path } })),
    retry: false,
  });
  const enter = useEnter(async () => {
    await got(api.POST("/api/invitations/{code}", { params: { path }, body: { password } }));
    location.replace("/");
  });
  const problem = enter.error instanceof ProblemError ? enter.error : null;
  if (error) {
    return (
      <Stack $gap={4}>
        <ProblemNote error={error} />
        <Button $quiet onPress={() => location.assign("/invitation")}>
          {say("sign-in.type-the-code")}
        </Button>
      </Stack>
    );
  }
  if (!data) return null;
  return (
    <EnterForm
      title={say(data.again ? "sign-in.choose-a-new-password" : "sign-in.welcome", { name: data.name })}
      button={say("sign-in.keep-and-sign-in")}
      error={problem && problem.fields.length > 0 ? null : enter.error}
      onEnter={() => enter.mutate()}
    >
      <Small>{say("sign-in.you-sign-in-as", { email: data.email })}</Small>
      <NewPasswordField
        label={say("sign-in.password")}
        value={password}
        onChange={setPassword}
        error={problem?.field("password")}
      />
    </EnterForm>
  );
}
