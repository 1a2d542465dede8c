import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog } from "react-aria-components";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { PoliciesView, PolicyView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Backups } from "./Backups";
import { ClinicFields } from "./ClinicFields";
import { PolicyEditor } from "./PolicyEditor";

export const usePolicies = () =>
  useQuery({ queryKey: keys.policies, queryFn: () => got(api.GET("/api/policies")) });

const Entry = styled(Link)<{ $here: boolean }>`
  display: block;
  padding: ${({ theme }) => theme.space(3)};
  border-left: 5px solid ${({ theme, $here }) => ($here ? theme.colour.clay : "transparent")};
  background: ${({ theme, $here }) => ($here ? theme.colour.sheet : "none")};
  color: inherit;
  text-decoration: none;
`;

/** The clinic's line for the sheet, and the schools: built in ones to read, own ones to change. */
export function PoliciesPage() {
  const { data, error } = usePolicies();
  const [search] = useSearchParams();
  return (
    <Page>
      <Row $between style={{ marginBottom: 16 }}>
        <h1 style={{ marginRight: "auto" }}>Settings</h1>
        <Link to="/overrides" style={{ color: "inherit", fontWeight: 600 }}>
          Where we disagree with the policy
        </Link>
        <Link to="/" style={{ color: "inherit", fontWeight: 600 }}>
          The day
        </Link>
      </Row>
      <ProblemNote error={error} />
      {data && (
        <Columns $at="290px minmax(0, 1fr)">
          <Stack $gap={5}>
            <ClinicFields />
            <Schools data={data} here={search.get("policy") ?? data.policies[0]!.policy.id} />
            <Backups />
          </Stack>
          <Chosen data={data} id={search.get("policy") ?? data.policies[0]!.policy.id} />
        </Columns>
      )}
    </Page>
  );
}

function Schools({ data, here }: { data: PoliciesView; here: string }) {
  return (
    <nav aria-label="Policies">
      <h2>Policies</h2>
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
            {view.builtIn ? "built in" : `own, version ${view.policy.version}`} ·{" "}
            {view.clients === 0 ? "nobody" : view.clients === 1 ? "one client" : `${view.clients} clients`}
          </Small>
        </Entry>
      ))}
    </nav>
  );
}

function Chosen({ data, id }: { data: PoliciesView; id: string }) {
  const view = data.policies.find((p) => p.policy.id === id);
  if (!view) return <p>There is no such policy. Choose one on the left.</p>;
  const builtIn = data.policies.find((p) => p.policy.id === view.basedOn)!.policy;
  return (
    <Stack $gap={4}>
      <Row $between>
        <h2>{view.policy.name}</h2>
        <CopyPolicy key={id} view={view} />
      </Row>
      <p>{view.policy.why}</p>
      {view.builtIn ? (
        <Small>A built-in policy stays as it is. Copy it to change it.</Small>
      ) : (
        <Small>
          Based on {builtIn.name}.{" "}
          {view.versions.map((v) => `Version ${v.version} by ${v.changedBy}`).join("; ")}. Every plan and
          decision keeps the version it was made by.
        </Small>
      )}
      <PolicyEditor
        key={`${id} ${view.policy.version}`}
        view={view}
        builtIn={builtIn}
        groups={data.groups}
        simulated={data.simulated}
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
      await queries.invalidateQueries({ queryKey: keys.library });
      setSearch({ policy: policy.id });
    },
  });
  const problem = copy.error instanceof ProblemError ? copy.error : null;
  return (
    <>
      <Button $quiet onPress={() => setOpen(true)}>
        Copy and change
      </Button>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog aria-label="Copy a policy">
            <Stack $gap={4}>
              <h2>
                Copy <Quiet>{view.policy.name}</Quiet>
              </h2>
              <TextField label="Name" value={name} onChange={setName} error={problem?.field("name")} />
              <TextField
                long
                label="What it is for"
                value={why}
                onChange={setWhy}
                error={problem?.field("why")}
              />
              <ProblemNote error={copy.error} />
              <Row>
                <Button isDisabled={copy.isPending} onPress={() => copy.mutate()}>
                  Copy it
                </Button>
                <Button $quiet onPress={() => setOpen(false)}>
                  Back
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}
