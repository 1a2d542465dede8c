import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled, { createGlobalStyle } from "styled-components";
import { api, got } from "../api/client";
import { birthWords } from "../api/clinicTime";
import { keys, useClinic, useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { FigureList } from "../controls/FigureList";
import { Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";
import { shareWords } from "./shares";

/** On paper stands the certificate alone. */
const PrintAlone = createGlobalStyle`
  @page { margin: 20mm; }
  @media print {
    .screen-only { display: none !important; }
    main { padding: 0 !important; }
  }
`;

const Paper = styled.article`
  max-width: 640px;
  .sign {
    margin-top: ${({ theme }) => theme.space(10)};
    padding-top: ${({ theme }) => theme.space(1)};
    border-top: 1px solid ${({ theme }) => theme.colour.ink};
    max-width: 320px;
  }
`;

/** That somebody practised, and what their clips came to: on paper, theirs to show or not. */
export function CertificatePage() {
  const { data: start } = useStart();
  const { data: clinic } = useClinic();
  const { data, error } = useQuery({
    queryKey: keys.practice,
    queryFn: () => got(api.GET("/api/practice")),
    staleTime: 0,
  });
  const ready = data?.own.enough && data.lastOn && clinic;
  return (
    <Page>
      <PrintAlone />
      <ProblemNote error={error} />
      <Stack $gap={4}>
        <Row $between className="screen-only">
          <Link to="/practice">{say("practice.practice-room")}</Link>
          {ready && (
            <Button $quiet $small onPress={() => window.print()}>
              {say("practice.print")}
            </Button>
          )}
        </Row>
        {ready && (
          <Paper>
            <Stack $gap={4}>
              <h1>{say("practice.certificate-of-practice")}</h1>
              <p>
                {say("practice.certificate-says", {
                  name: start?.signedInAs ?? "",
                  clinic: clinic.name,
                  clips: data.own.clips,
                  last: birthWords(data.lastOn!),
                })}
              </p>
              <FigureList
                small
                figures={[
                  [say("practice.faults-missed"), shareWords(data.own.missed)],
                  [say("practice.clean-marked"), shareWords(data.own.falseMarks)],
                ]}
              />
              <Small>{say("practice.certificate-means")}</Small>
              <div className="sign">
                <Small as="span">{say("practice.for-the-clinic")}</Small>
              </div>
            </Stack>
          </Paper>
        )}
        {data && !data.own.enough && (
          <>
            <h1>{say("practice.certificate-of-practice")}</h1>
            <p>{say("practice.not-enough-yet", { clips: data.own.clips, needed: data.own.needed })}</p>
          </>
        )}
      </Stack>
    </Page>
  );
}
