import { useQueryClient } from "@tanstack/react-query";
import { Dialog, Heading } from "react-aria-components";
import { useNavigate } from "react-router";
import { createGlobalStyle } from "styled-components";
import { birthWords, momentWords } from "../api/clinicTime";
import type { ErasureCertificate } from "../api/types";
import { Button } from "../controls/Button";
import { Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Table } from "../controls/Table";
import { say } from "../words/say";

/** On paper stands the certificate alone. */
const PrintAlone = createGlobalStyle`
  @media print {
    #root { display: none; }
  }
`;

/** What went: told once, printed or not, and kept nowhere. */
export function Certificate({ certificate }: { certificate: ErasureCertificate }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const close = () => {
    void navigate("/clients");
    queries.clear();
  };
  return (
    <Veil isOpen>
      <Sheet $wide>
        <Dialog>
          <Stack $gap={3}>
            <PrintAlone />
            <Heading slot="title">{say("clients.certificate")}</Heading>
            <p>
              {say("clients.certificate-says", {
                name: certificate.name,
                born: birthWords(certificate.birthDate),
                number: certificate.number,
                at: momentWords(certificate.at),
                by: certificate.by,
                reason: certificate.reason,
              })}
            </p>
            {certificate.retainedUntil && (
              <p>{say("clients.retained-until", { day: birthWords(certificate.retainedUntil) })}</p>
            )}
            <Table>
              <thead>
                <tr>
                  <th>{say("clients.what-went")}</th>
                  <th>{say("clients.how-many")}</th>
                </tr>
              </thead>
              <tbody>
                {certificate.rows.map((row) => (
                  <tr key={row.what}>
                    <td>{row.what}</td>
                    <td>{row.rows}</td>
                  </tr>
                ))}
                <tr>
                  <td>{say("clients.files")}</td>
                  <td>{certificate.files}</td>
                </tr>
              </tbody>
            </Table>
            <Small>
              {certificate.backupsUntil
                ? say("clients.backups-until", { day: birthWords(certificate.backupsUntil) })
                : say("clients.no-backups")}
            </Small>
            <Row className="screen-only">
              <Button onPress={() => window.print()}>{say("clients.print")}</Button>
              <Button $quiet onPress={close}>
                {say("clients.close")}
              </Button>
            </Row>
            <Small className="screen-only">{say("clients.kept-nowhere")}</Small>
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}
