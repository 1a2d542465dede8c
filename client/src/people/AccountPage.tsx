import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { AccountView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { NewPasswordField, PasswordField } from "../controls/secrets";
import { Columns, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SubmitForm } from "../controls/SubmitForm";
import { PageHead } from "../controls/PageHead";
import { say } from "../words/say";
import { LookSection } from "./LookSection";
import { PinSection } from "./PinSection";
import { ReadingSection } from "./ReadingSection";
import { roleMeans, roleWords } from "./roles";
import { SecondFactor } from "./SecondFactor";

/** What everybody may change about themselves: name, password, where they are signed in. */
export function AccountPage() {
  const { data, error } = useQuery({
    queryKey: keys.account,
    queryFn: () => got(api.GET("/api/account")),
  });
  return (
    <Page>
      <PageHead title={say("people.your-account")} ways={[{ to: "/", name: say("people.the-day") }]} />
      <ProblemNote error={error} />
      {data && (
        <Columns $at="1fr 1fr">
          <Stack $gap={6}>
            <Name key={data.name} account={data} />
            <section aria-label={say("people.what-you-may")}>
              <h2>{say("people.what-you-may")}</h2>
              <ul>
                {data.roles.map((role) => (
                  <li key={role} style={{ padding: "6px 0" }}>
                    <strong>{roleWords[role]}</strong> <Quiet>{roleMeans[role]}</Quiet>
                  </li>
                ))}
              </ul>
            </section>
            <LookSection />
            <SignIns />
          </Stack>
          <Stack $gap={6}>
            <Password />
            <SecondFactor account={data} />
            <PinSection account={data} />
            <ReadingSection account={data} />
          </Stack>
        </Columns>
      )}
    </Page>
  );
}

function Name({ account }: { account: AccountView }) {
  const queries = useQueryClient();
  const [name, setName] = useState(account.name);
  const keep = useMutation({
    mutationFn: () => got(api.PUT("/api/account", { body: { name } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const field = keep.error instanceof ProblemError ? keep.error.field("name") : undefined;
  return (
    <section aria-label={say("people.your-name")}>
      <Stack $gap={3}>
        <h2>{say("people.your-name")}</h2>
        <TextField
          label={say("people.as-it-stands-in-records")}
          value={name}
          onChange={setName}
          error={field}
          autoComplete="name"
        />
        <Small>{say("people.signs-in-as", { email: account.email })}</Small>
        {!field && <ProblemNote error={keep.error} />}
        <Row>
          <Button $quiet isDisabled={name === account.name || keep.isPending} onPress={() => keep.mutate()}>
            {say("people.keep-the-name")}
          </Button>
        </Row>
      </Stack>
    </section>
  );
}

function Password() {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: () => got(api.POST("/api/account/password", { body: { old, new: next } })),
    onSuccess: async () => {
      setOld("");
      setNext("");
      await queries.invalidateQueries({ queryKey: keys.signIns });
    },
  });
  const problem = change.error instanceof ProblemError ? change.error : null;
  return (
    <section aria-label={say("people.password")}>
      <SubmitForm gap={3} onSubmit={() => change.mutate()}>
        <h2>{say("people.password")}</h2>
        <PasswordField
          label={say("people.password-now")}
          value={old}
          onChange={setOld}
          error={problem?.field("old")}
        />
        <NewPasswordField
          label={say("people.new-password")}
          value={next}
          onChange={setNext}
          error={problem?.field("new")}
        />
        {problem?.fields.length === 0 && <ProblemNote error={problem} />}
        <Row>
          <Button $quiet type="submit" isDisabled={!old || !next || change.isPending}>
            {say("people.change-password")}
          </Button>
        </Row>
        {change.isSuccess && <p role="status">{say("people.password-changed")}</p>}
      </SubmitForm>
    </section>
  );
}

function SignIns() {
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: keys.signIns,
    queryFn: () => got(api.GET("/api/account/sign-ins")),
  });
  const end = useMutation({
    mutationFn: (signInId: string) =>
      got(api.DELETE("/api/account/sign-ins/{signInId}", { params: { path: { signInId } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.signIns }),
  });
  return (
    <section aria-label={say("people.where-you-are-signed-in")}>
      <Stack $gap={3}>
        <h2>{say("people.where-you-are-signed-in")}</h2>
        <ProblemNote error={error ?? end.error} />
        <ul>
          {data?.map((one) => (
            <li key={one.id} style={{ padding: "6px 0" }}>
              <Row $between style={{ flexWrap: "nowrap" }}>
                <span>
                  <strong>{one.here ? say("people.this-device") : deviceWords(one.device)}</strong>{" "}
                  <Quiet>{say("people.since", { at: momentWords(one.begunAt) })}</Quiet>
                </span>
                {!one.here && (
                  <Button
                    $quiet
                    $small
                    aria-label={say("people.sign-out-device", { device: deviceWords(one.device) })}
                    onPress={() => end.mutate(one.id)}
                  >
                    {say("people.sign-out")}
                  </Button>
                )}
              </Row>
            </li>
          ))}
        </ul>
        <Small>{say("people.ends-by-itself")}</Small>
      </Stack>
    </section>
  );
}

/** What stands in brackets in what a browser says of itself is the device, as "iPad; CPU OS 18_0". */
export function deviceWords(agent: string) {
  const device = /\(([^)]+)\)/.exec(agent)?.[1]?.split(";")[0]?.trim();
  return device ?? (agent.split("/")[0]?.trim() || say("people.unknown-device"));
}
