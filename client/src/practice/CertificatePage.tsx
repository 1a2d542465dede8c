import { Link } from "react-router";
import styled, { createGlobalStyle } from "styled-components";
import { birthWords } from "../api/clinicTime";
import { useClinic, useStart } from "../api/queries";
import type { RaterFigures } from "../api/types";
import { Button } from "../controls/Button";
import { FigureList } from "../controls/FigureList";
import { Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";
import { shareWords } from "./shares";
import { usePractice } from "./usePractice";

const PaperMargins = createGlobalStyle`
  @page { margin: 20mm; }
  @media print { main { padding: 0 !important; } }
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
  const { data, error } = usePractice();
  const enough = data?.own.enough && data.lastOn;
  return (
    <Page>
      <PaperMargins />
      <ProblemNote error={error} />
      <Stack $gap={4}>
        <Row $between className="screen-only">
          <Link to="/practice">{say("practice.practice-room")}</Link>
          {enough && (
            <Button $quiet $small onPress={() => window.print()}>
              {say("practice.print")}
            </Button>
          )}
        </Row>
        <h1>{say("practice.certificate-of-practice")}</h1>
        {enough && <Certificate own={data.own} last={enough} />}
        {data && !enough && (
          <p>{say("practice.not-enough-yet", { clips: data.own.clips, needed: data.own.needed })}</p>
        )}
      </Stack>
    </Page>
  );
}

function Certificate({ own, last }: { own: RaterFigures; last: string }) {
  const { data: start } = useStart();
  const { data: clinic } = useClinic();
  return (
    <Paper>
      <Stack $gap={4}>
        <p>
          {say("practice.certificate-says", {
            name: start?.signedInAs ?? "",
            clinic: clinic?.name ?? "",
            clips: own.clips,
            last: birthWords(last),
          })}
        </p>
        <FigureList
          small
          figures={[
            [say("practice.faults-missed"), shareWords(own.missed)],
            [say("practice.clean-marked"), shareWords(own.falseMarks)],
          ]}
        />
        <Small>{say("practice.certificate-means")}</Small>
        <div className="sign">
          <Small as="span">{say("practice.for-the-clinic")}</Small>
        </div>
      </Stack>
    </Paper>
  );
}
