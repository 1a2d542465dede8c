import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got } from "../api/client";
import { birthWords, dayWords } from "../api/clinicTime";
import { keys, useFoundClients } from "../api/queries";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { Page, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { Table, Wide } from "../controls/Table";
import { useRoles } from "../frame/useRoles";
import { say } from "../words/say";
import { TakeInRecord } from "./TakeInRecord";

/** Everybody the clinic knows: found by whatever is known of them. */
export function ClientsPage() {
  const [words, setWords] = useState("");
  const [archived, setArchived] = useState(false);
  const { data, error } = useFoundClients(words.trim(), archived, true);
  const navigate = useNavigate();
  const { books, clinical, administers, settles } = useRoles();
  const [takingIn, setTakingIn] = useState(false);
  return (
    <Page>
      <PageHead title={say("clients.clients")} ways={[{ to: "/", name: say("clients.the-day") }]} />
      <Stack $gap={4}>
        <Row style={{ alignItems: "flex-start" }}>
          <div style={{ flex: "1 1 320px" }}>
            <TextField
              label={say("clients.find")}
              hint={say("clients.by-what")}
              value={words}
              onChange={setWords}
            />
          </div>
          <Row style={{ marginTop: 20 }}>
            {books && (
              <Button onPress={() => void navigate("/clients/new")}>{say("clients.register")}</Button>
            )}
            {clinical && (
              <Button $quiet onPress={() => void navigate("/new")}>
                {say("clients.register-and-ask")}
              </Button>
            )}
            {settles && (
              <Button $quiet onPress={() => setTakingIn(true)}>
                {say("clients.take-in-a-record")}
              </Button>
            )}
          </Row>
        </Row>
        <Checkbox selected={archived} onChange={setArchived}>
          {say("clients.archived-ones")}
        </Checkbox>
        <ProblemNote error={error} />
        {data && data.length === 0 && <p>{say("clients.nobody")}</p>}
        {data && data.length > 0 && (
          <Wide label={say("clients.clients")}>
            <Table>
              <thead>
                <tr>
                  <th>{say("clients.name")}</th>
                  <th>{say("clients.number")}</th>
                  <th>{say("clients.born")}</th>
                  {clinical && <th>{say("clients.complaint")}</th>}
                </tr>
              </thead>
              <tbody>
                {data.map((line) => (
                  <tr key={line.clientId}>
                    <td>
                      <Link to={`/clients/${line.clientId}`} style={{ fontWeight: 600 }}>
                        {line.name}
                      </Link>{" "}
                      {line.discharged && <Quiet>{say("clients.discharged")}</Quiet>}
                    </td>
                    <td>{line.number}</td>
                    <td>{birthWords(line.birthDate)}</td>
                    {clinical && <td>{line.complaint}</td>}
                  </tr>
                ))}
              </tbody>
            </Table>
          </Wide>
        )}
        {administers && <RetentionOver />}
        {takingIn && <TakeInRecord onClose={() => setTakingIn(false)} />}
      </Stack>
    </Page>
  );
}

/** Records that need not be kept any longer. */
function RetentionOver() {
  const { data, error } = useQuery({
    queryKey: keys.retentionOver,
    queryFn: () => got(api.GET("/api/clients/retention-over")),
  });
  if (!data) return <ProblemNote error={error} />;
  if (data.length === 0) return null;
  return (
    <Ruled>
      <h2>{say("clients.retention-over")}</h2>
      <Small>{say("clients.retention-over-means")}</Small>
      <ul>
        {data.map((line) => (
          <li key={line.clientId}>
            <Link to={`/clients/${line.clientId}`}>{line.name}</Link>{" "}
            <Quiet>{say("clients.last-visit", { day: dayWords(line.lastVisit) })}</Quiet>
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
