import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { AuditKind, AuditLine } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Empty, Note, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Picker } from "../controls/Picker";
import { Table, Wide } from "../controls/Table";
import { PageHead } from "../controls/PageHead";
import { say } from "../words/say";
import { changesOf, whatWords } from "./auditWords";

const kindWords: Record<AuditKind, string> = {
  view: say("people.kind-view"),
  change: say("people.kind-change"),
  export: say("people.kind-export"),
  "sign-in": say("people.kind-sign-in"),
  refusal: say("people.kind-refusal"),
  gap: say("people.kind-gap"),
};

const kinds = [
  { value: "", label: say("people.every-kind") },
  ...Object.entries(kindWords).map(([value, label]) => ({ value, label })),
];

/** For administrators: who looked at what, changed it, took it out, or was refused. */
export function AuditPage() {
  const [words, setWords] = useState("");
  const [kind, setKind] = useState("");
  const { data, error, fetchNextPage, hasNextPage, isFetching } = useInfiniteQuery({
    queryKey: keys.audit(words.trim(), kind),
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      got(
        api.GET("/api/audit", {
          params: { query: { words: words.trim(), kind: kind || undefined, before: pageParam } },
        }),
      ),
    getNextPageParam: (page) => (page.more ? page.lines.at(-1)!.number : undefined),
    placeholderData: (before) => before,
  });
  const lines = data?.pages.flatMap((page) => page.lines) ?? [];
  return (
    <Page>
      <PageHead
        title={say("people.audit")}
        ways={[
          { to: "/people", name: say("people.people") },
          { to: "/", name: say("people.the-day") },
        ]}
      />
      <Stack $gap={4}>
        <Whole />
        <Columns $at="minmax(0, 1fr) 260px">
          <TextField label={say("people.find-in-the-audit")} value={words} onChange={setWords} />
          <Picker label={say("people.kind")} value={kind} onPick={setKind} options={kinds} />
        </Columns>
        <ProblemNote error={error} />
        {data && lines.length === 0 && (
          <Empty title={say("people.nothing-of-that")}>
            <p>{say("people.other-words")}</p>
          </Empty>
        )}
        {lines.length > 0 && <Lines lines={lines} />}
        {hasNextPage && (
          <Row>
            <Button $quiet isDisabled={isFetching} onPress={() => void fetchNextPage()}>
              {say("people.older-ones")}
            </Button>
          </Row>
        )}
      </Stack>
    </Page>
  );
}

function Whole() {
  const { data, error } = useQuery({
    queryKey: keys.auditState,
    queryFn: () => got(api.GET("/api/audit/state")),
  });
  if (!data) return <ProblemNote error={error} />;
  return data.faults.length === 0 ? (
    <Small>{say("people.audit-is-whole", { entries: data.entries })}</Small>
  ) : (
    <Note grave>
      <strong>{say("people.audit-is-not-whole")}</strong>
      <ul>
        {data.faults.map((fault) => (
          <li key={`${fault.number} ${fault.words}`}>
            {say("people.entry", { number: fault.number, words: fault.words })}
          </li>
        ))}
      </ul>
    </Note>
  );
}

/** Whoever tried to come in is not known; what nobody did the server did. */
const nobodyWords = (kind: AuditKind) =>
  kind === "refusal" || kind === "sign-in" ? say("people.nobody-signed-in") : say("people.the-server");

function Lines({ lines }: { lines: AuditLine[] }) {
  return (
    <Wide label={say("people.audit")}>
      <Table>
        <thead>
          <tr>
            <th>{say("people.when")}</th>
            <th>{say("people.who")}</th>
            <th>{say("people.did")}</th>
            <th>{say("people.whose-record")}</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.number}>
              <td style={{ whiteSpace: "nowrap" }}>{momentWords(line.at)}</td>
              <td>{line.by || <Quiet>{nobodyWords(line.kind)}</Quiet>}</td>
              <td>
                <strong>{kindWords[line.kind]}</strong>: {whatWords(line.what)}
                <Changes line={line} />
              </td>
              <td>
                {line.client && line.episode && line.visit ? (
                  <Link to={`/episodes/${line.episode}/visits/${line.visit}/ask`}>{line.client}</Link>
                ) : (
                  line.client
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Wide>
  );
}

function Changes({ line }: { line: AuditLine }) {
  const changes = changesOf(line.payload ?? null);
  if (changes.length === 0) return null;
  return (
    <details>
      <summary style={{ cursor: "pointer", minHeight: 32 }}>
        {say("people.fields-changed", { count: changes.length })}
      </summary>
      {changes.map((change) => (
        <Small key={change.field} as="p">
          <strong>{change.field}</strong> {change.before !== null && <s>{change.before}</s>} {change.after}
        </Small>
      ))}
    </details>
  );
}
