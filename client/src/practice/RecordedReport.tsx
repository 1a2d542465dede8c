import type { AngleAgreed, RecordedFigures, TracesAgreed } from "../api/types";
import { Button } from "../controls/Button";
import { Table } from "../controls/DataTable";
import { FigureList } from "../controls/FigureList";
import { Row, Small, Stack } from "../controls/layout";
import { Wide } from "../controls/Table";
import { angleNames } from "../figure/spots";
import { say } from "../words/say";
import { countWords, number, numberWithin } from "./shares";

/** How far those agree who have rated all of it, and with themselves. */
export function RecordedReport({ figures }: { figures: RecordedFigures }) {
  return (
    <section aria-labelledby="report">
      <Stack $gap={4}>
        <Row $between>
          <h2 id="report">{say("practice.how-far-we-agree")}</h2>
          <Button $quiet $small onPress={() => window.print()}>
            {say("practice.print")}
          </Button>
        </Row>
        <p>{say("practice.recorded-raters", { raters: figures.raters, needed: figures.needed })}</p>
        {figures.traces && <Traces traces={figures.traces} />}
        {figures.angles.length > 0 && <Angles angles={figures.angles} />}
        <Small>{say("practice.recorded-what-figures-mean")}</Small>
      </Stack>
    </section>
  );
}

function Traces({ traces }: { traces: TracesAgreed }) {
  const { byBand } = traces;
  const own: [string, string][] = [
    [say("practice.traces"), String(traces.items)],
    [say("practice.same-again"), countWords(traces.sameAgain, traces.again)],
    [say("practice.own-error-seconds"), number(traces.againError)],
    [
      say("practice.eye-less-band"),
      byBand
        ? say("practice.number-within", {
            value: number(byBand.bias),
            low: number(byBand.low),
            high: number(byBand.high),
          })
        : "–",
    ],
  ];
  const team: [string, string][] = [
    [say("practice.kappa"), numberWithin(traces.kappa, traces.ends.kappa)],
    [say("practice.fleiss"), numberWithin(traces.fleiss, traces.ends.fleiss)],
    [say("practice.ac1"), numberWithin(traces.ac1, traces.ends.ac1)],
    [say("practice.icc-seconds"), number(traces.seconds?.icc.value)],
    [say("practice.sem-seconds"), number(traces.seconds?.sem)],
    [say("practice.sdc-seconds"), number(traces.seconds?.sdc)],
  ];
  return (
    <div>
      <h3 style={{ marginBottom: 8 }}>{say("practice.control-lost-or-not")}</h3>
      <FigureList small figures={traces.enough ? [...own, ...team] : own} />
    </div>
  );
}

function Angles({ angles }: { angles: AngleAgreed[] }) {
  return (
    <div>
      <h3>{say("practice.angles-degrees")}</h3>
      <Wide label={say("practice.angles-degrees")}>
        <Table>
          <thead>
            <tr>
              <th>{say("practice.angle")}</th>
              <th>{say("practice.photographs")}</th>
              <th>{say("practice.icc")}</th>
              <th>{say("practice.sem")}</th>
              <th>{say("practice.sdc")}</th>
              <th>{say("practice.own-error")}</th>
            </tr>
          </thead>
          <tbody>
            {angles.map((angle) => (
              <tr key={angle.kind}>
                <td>{angleNames[angle.kind]}</td>
                <td>{angle.items}</td>
                <td>{number(angle.degrees?.icc.value)}</td>
                <td>{number(angle.degrees?.sem)}</td>
                <td>{number(angle.degrees?.sdc)}</td>
                <td>{number(angle.againError)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
    </div>
  );
}
