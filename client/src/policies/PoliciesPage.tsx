import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog } from "react-aria-components";
import { Link, useLocation, useSearchParams } from "react-router";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys, useStart } from "../api/queries";
import type { PoliciesView, PolicyView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Backups } from "./Backups";
import { ClinicFields } from "./ClinicFields";
import { OwnEye } from "./OwnEye";
import { PolicyEditor } from "./PolicyEditor";
import { Sentences } from "./Sentences";
import { PageHead } from "../controls/PageHead";
import { Places } from "../controls/Tabs";
import { say, sayRich } from "../words/say";

export const usePolicies = () =>
  useQuery({ queryKey: keys.policies, queryFn: () => got(api.GET("/api/policies")) });

const Entry = styled(Link)<{ $here: boolean }>`
  display: block;
  padding: ${({ theme }) => theme.space(3)};
  border-inline-start: 5px solid ${({ theme, $here }) => ($here ? theme.colour.clay : "transparent")};
  background: ${({ theme, $here }) => ($here ? theme.colour.sheet : "none")};
  color: inherit;
  text-decoration: none;
`;

/** The clinic's line for the sheet, and the schools: built in ones to read, own ones to change. */
export function PoliciesPage() {
  const { data, error } = usePolicies();
  const { data: start } = useStart();
  const [search, setSearch] = useSearchParams();
  const { hash } = useLocation();
  const part = search.get("part") ?? (hash === "#backups" ? "backups" : "policies");
  const policy = search.get("policy") ?? data?.policies[0]?.policy.id ?? "";
  return (
    <Page>
      <PageHead
        title={say("policies.settings")}
        ways={[
          ...(start?.administrator ? [{ to: "/people", name: say("policies.people") }] : []),
          { to: "/overrides", name: say("policies.where-we-disagree-with-the") },
          { to: "/", name: say("policies.the-day") },
        ]}
      />
      <ProblemNote error={error} />
      {data && (
        <Places
          label={say("policies.parts-of-the-settings")}
          open={part}
          onOpen={(id) => setSearch(id === "policies" ? {} : { part: id }, { replace: true })}
          places={[
            {
              id: "policies",
              name: say("policies.policies"),
              content: (
                <Columns $at="290px minmax(0, 1fr)">
                  <Schools data={data} here={policy} />
                  <Chosen data={data} id={policy} />
                </Columns>
              ),
            },
            ...(start?.administrator
              ? [{ id: "clinic", name: say("policies.the-clinic"), content: <ClinicFields /> }]
              : []),
            { id: "words", name: say("policies.letters-and-home-programmes"), content: <Sentences /> },
            { id: "eye", name: say("policies.the-eye"), content: <OwnEye /> },
            { id: "backups", name: say("policies.backups"), content: <Backups /> },
          ]}
        />
      )}
      {start?.version && (
        <footer style={{ marginTop: 24 }}>
          <Small>{say("policies.palaestra-version", { version: start.version })}</Small>
        </footer>
      )}
    </Page>
  );
}

function Schools({ data, here }: { data: PoliciesView; here: string }) {
  return (
    <nav aria-label={say("policies.policies")}>
      <h2>{say("policies.policies")}</h2>
      {data.policies.map((view) => (
        <Entry
          key={view.policy.id}
          to={`/settings?policy=${view.policy.id}`}
          $here={view.policy.id === here}
          aria-current={view.policy.id === here ? "page" : undefined}
        >
          <strong>{view.policy.name}</strong>
          <br />
          <Small as="span">
            {view.builtIn
              ? say("policies.built-in-2")
              : say("policies.own-version-version", { version: view.policy.version })}{" "}
            ·{" "}
            {view.clients === 0
              ? say("policies.nobody")
              : view.clients === 1
                ? say("policies.one-client")
                : say("policies.clients-clients", { clients: view.clients })}
          </Small>
        </Entry>
      ))}
    </nav>
  );
}

function Chosen({ data, id }: { data: PoliciesView; id: string }) {
  const [sought, setSought] = useState("");
  const view = data.policies.find((p) => p.policy.id === id);
  if (!view) return <p>{say("policies.there-is-no-such-policy")}</p>;
  const builtIn = data.policies.find((p) => p.policy.id === view.basedOn)!.policy;
  return (
    <Stack $gap={4}>
      <Row $between>
        <h2>{view.policy.name}</h2>
        <CopyPolicy key={id} view={view} />
      </Row>
      <p>{view.policy.why}</p>
      {view.builtIn ? (
        <Small>{say("policies.a-built-in-policy-stays")}</Small>
      ) : (
        <Small>
          {say("policies.based-on-builtin-versions-every", {
            builtIn: builtIn.name,
            versions: view.versions
              .map((v) =>
                say("policies.version-version-by-changedby", { version: v.version, changedBy: v.changedBy }),
              )
              .join("; "),
          })}
        </Small>
      )}
      <PolicyEditor
        key={`${id} ${view.policy.version}`}
        view={view}
        builtIn={builtIn}
        groups={data.groups}
        simulated={data.simulated}
        sought={sought}
        onSeek={setSought}
      />
    </Stack>
  );
}

function CopyPolicy({ view }: { view: PolicyView }) {
  const queries = useQueryClient();
  const [, setSearch] = useSearchParams();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(`${view.policy.name}, ours`);
  const [why, setWhy] = useState(view.policy.why);
  const copy = useMutation({
    mutationFn: () => got(api.POST("/api/policies", { body: { from: view.policy.id, name, why } })),
    onSuccess: async (policy) => {
      setOpen(false);
      await queries.invalidateQueries({ queryKey: keys.policies });
      // It may be on its way already: the answer has told that there is another.
      await queries.invalidateQueries({ queryKey: keys.library }, { cancelRefetch: false });
      setSearch({ policy: policy.id });
    },
  });
  const problem = copy.error instanceof ProblemError ? copy.error : null;
  return (
    <>
      <Button $quiet onPress={() => setOpen(true)}>
        {say("policies.copy-and-change")}
      </Button>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog aria-label={say("policies.copy-a-policy")}>
            <Stack $gap={4}>
              <h2>
                {sayRich("policies.copy-policy", {
                  policy: view.policy.name,
                  quiet: (chunks) => <Quiet>{chunks}</Quiet>,
                })}
              </h2>
              <TextField
                label={say("policies.name")}
                value={name}
                onChange={setName}
                error={problem?.field("name")}
              />
              <TextField
                long
                label={say("policies.what-it-is-for")}
                value={why}
                onChange={setWhy}
                error={problem?.field("why")}
              />
              <ProblemNote error={copy.error} />
              <Row>
                <Button isDisabled={copy.isPending} onPress={() => copy.mutate()}>
                  {say("policies.copy-it")}
                </Button>
                <Button $quiet onPress={() => setOpen(false)}>
                  {say("policies.back")}
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}
