import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { useState } from "react";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { AccountLine, AccountsView, InvitationMade, Role } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { Columns, Note, Page, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { say } from "../words/say";
import { allRoles, roleMeans, roleWords } from "./roles";

const Choices = styled.div<{ $means: boolean }>`
  display: flex;
  flex-direction: ${({ $means }) => ($means ? "column" : "row")};
  flex-wrap: wrap;
  column-gap: ${({ theme }) => theme.space(5)};
`;

const Person = styled(Ruled)`
  padding-bottom: ${({ theme }) => theme.space(4)};
`;

/** For administrators: who has an account, what each may do, and codes for those who come. */
export function PeoplePage() {
  const { data, error } = useQuery({
    queryKey: keys.accounts,
    queryFn: () => got(api.GET("/api/accounts")),
  });
  const [made, setMade] = useState<{ made: InvitationMade; name: string } | null>(null);
  return (
    <Page>
      <PageHead
        title={say("people.people")}
        ways={[
          { to: "/audit", name: say("people.audit") },
          { to: "/settings", name: say("people.settings") },
          { to: "/", name: say("people.the-day") },
        ]}
      />
      <ProblemNote error={error} />
      {data && (
        <Columns $at="minmax(0, 1.6fr) minmax(300px, 1fr)">
          <section aria-label={say("people.accounts")}>
            <h2>{say("people.accounts")}</h2>
            {data.accounts.map((account) => (
              <Account
                key={account.id + account.roles.join() + account.disabledAt}
                account={account}
                onMade={setMade}
              />
            ))}
          </section>
          <Stack $gap={6}>
            {made && <Code made={made.made} name={made.name} onDone={() => setMade(null)} />}
            <Invite onMade={setMade} />
            <Waiting view={data} />
          </Stack>
        </Columns>
      )}
    </Page>
  );
}

function Roles(props: { roles: Role[]; onChange: (roles: Role[]) => void; error?: string; means?: boolean }) {
  return (
    <Choices role="group" aria-label={say("people.may")} $means={props.means ?? false}>
      {allRoles.map((role) => (
        <Checkbox
          key={role}
          selected={props.roles.includes(role)}
          onChange={(on) =>
            props.onChange(on ? [...props.roles, role] : props.roles.filter((r) => r !== role))
          }
        >
          {roleWords[role]} {props.means && <Quiet>{roleMeans[role]}</Quiet>}
        </Checkbox>
      ))}
      {props.error && <Note grave>{props.error}</Note>}
    </Choices>
  );
}

type Made = (made: { made: InvitationMade; name: string }) => void;

function Account({ account, onMade }: { account: AccountLine; onMade: Made }) {
  const queries = useQueryClient();
  const [roles, setRoles] = useState(account.roles);
  const [asking, setAsking] = useState(false);
  const path = { accountId: account.id };
  const refresh = () => queries.invalidateQueries();
  const set = useMutation({
    mutationFn: (disabled: boolean) =>
      got(api.PUT("/api/accounts/{accountId}", { params: { path }, body: { roles, disabled } })),
    onSuccess: refresh,
  });
  const reset = useMutation({
    mutationFn: () => got(api.POST("/api/accounts/{accountId}/reset", { params: { path } })),
    onSuccess: async (made) => {
      onMade({ made, name: account.name });
      await refresh();
    },
  });
  const out = useMutation({
    mutationFn: () => got(api.DELETE("/api/accounts/{accountId}/sign-ins", { params: { path } })),
    onSuccess: refresh,
  });
  const disabled = account.disabledAt !== null;
  const changed = [...roles].sort().join() !== [...account.roles].sort().join();
  return (
    <Person role="group" aria-label={account.name}>
      <Stack $gap={2}>
        <Row $between>
          <span>
            <strong>{account.name}</strong> <Quiet>{account.email}</Quiet>
          </span>
          <Quiet>
            {account.disabledAt
              ? say("people.disabled-since", { at: momentWords(account.disabledAt) })
              : say("people.signed-in-on", { count: account.signIns })}
          </Quiet>
        </Row>
        <Roles roles={roles} onChange={setRoles} />
        <ProblemNote error={set.error ?? reset.error ?? out.error} />
        <Row $gap={2}>
          {changed && (
            <Button $small isDisabled={set.isPending} onPress={() => set.mutate(disabled)}>
              {say("people.keep-roles")}
            </Button>
          )}
          <Button $quiet $small onPress={() => reset.mutate()}>
            {say("people.new-password-code")}
          </Button>
          {account.signIns > 0 && (
            <Button $quiet $small onPress={() => out.mutate()}>
              {say("people.sign-out-everywhere")}
            </Button>
          )}
          <Button
            $quiet
            $small
            isDisabled={changed || set.isPending}
            onPress={() => (disabled ? set.mutate(false) : setAsking(true))}
          >
            {disabled ? say("people.let-in-again") : say("people.disable")}
          </Button>
        </Row>
        {asking && (
          <Row $gap={2} role="group" aria-label={say("people.disable")}>
            <span>{say("people.disable-sure", { name: account.name })}</span>
            <Button $small isDisabled={set.isPending} onPress={() => set.mutate(true)}>
              {say("people.yes-disable")}
            </Button>
            <Button $quiet $small onPress={() => setAsking(false)}>
              {say("people.no")}
            </Button>
          </Row>
        )}
      </Stack>
    </Person>
  );
}

function Invite({ onMade }: { onMade: Made }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [email, setEmail] = useState("");
  const [roles, setRoles] = useState<Role[]>([]);
  const invite = useMutation({
    mutationFn: () => got(api.POST("/api/accounts/invitations", { body: { name, email, roles } })),
    onSuccess: async (made) => {
      onMade({ made, name });
      setName("");
      setEmail("");
      setRoles([]);
      await queries.invalidateQueries({ queryKey: keys.accounts });
    },
  });
  const problem = invite.error instanceof ProblemError ? invite.error : null;
  return (
    <section aria-label={say("people.invite-somebody")}>
      <Stack $gap={3}>
        <h2>{say("people.invite-somebody")}</h2>
        <TextField
          label={say("people.name")}
          value={name}
          onChange={setName}
          error={problem?.field("name")}
        />
        <TextField
          label={say("people.e-mail")}
          hint={say("people.only-to-sign-in-with")}
          value={email}
          onChange={setEmail}
          type="email"
          error={problem?.field("email")}
        />
        <Roles roles={roles} onChange={setRoles} error={problem?.field("roles")} means />
        {problem?.fields.length === 0 && <ProblemNote error={problem} />}
        <Button
          isDisabled={!name.trim() || !email.trim() || roles.length === 0 || invite.isPending}
          onPress={() => invite.mutate()}
        >
          {say("people.make-a-code")}
        </Button>
      </Stack>
    </section>
  );
}

/** Shown once: the server keeps no code. */
function Code(props: { made: InvitationMade; name: string; onDone: () => void }) {
  const { made } = props;
  const address = `${window.location.origin}${made.path}`;
  return (
    <Note>
      <Stack $gap={3} role="status">
        <strong>{say("people.code-for", { name: props.name })}</strong>
        <Row style={{ flexWrap: "nowrap", alignItems: "start" }}>
          <QRCodeSVG
            value={address}
            size={132}
            marginSize={2}
            title={say("people.code-as-a-picture")}
            role="img"
            style={{ flex: "none" }}
          />
          <div>
            <code style={{ fontSize: "1.25rem" }}>{made.code}</code>
            <p style={{ overflowWrap: "anywhere" }}>
              {say("people.code-how", { address, ends: momentWords(made.endsAt) })}
            </p>
          </div>
        </Row>
        <Row>
          <Button $quiet $small onPress={props.onDone}>
            {say("people.code-passed-on")}
          </Button>
        </Row>
      </Stack>
    </Note>
  );
}

function Waiting({ view }: { view: AccountsView }) {
  const queries = useQueryClient();
  const back = useMutation({
    mutationFn: (invitationId: string) =>
      got(api.DELETE("/api/accounts/invitations/{invitationId}", { params: { path: { invitationId } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.accounts }),
  });
  if (view.invitations.length === 0) return null;
  return (
    <section aria-label={say("people.codes-not-used-yet")}>
      <h2>{say("people.codes-not-used-yet")}</h2>
      <ProblemNote error={back.error} />
      <ul>
        {view.invitations.map((one) => (
          <li key={one.id} style={{ padding: "6px 0" }}>
            <Row $between style={{ flexWrap: "nowrap" }}>
              <span>
                <strong>{one.name}</strong>{" "}
                <Quiet>
                  {one.again
                    ? say("people.a-new-password")
                    : one.roles.map((role) => roleWords[role]).join(", ")}
                </Quiet>
                <Small>
                  {say("people.made-by-until", { by: one.madeBy, ends: momentWords(one.endsAt) })}
                </Small>
              </span>
              <Button
                $quiet
                $small
                aria-label={say("people.take-back-code", { name: one.name })}
                onPress={() => back.mutate(one.id)}
              >
                {say("people.take-back")}
              </Button>
            </Row>
          </li>
        ))}
      </ul>
    </section>
  );
}
