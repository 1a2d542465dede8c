import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { Sheet, SheetExercise } from "../api/types";
import { Note, ProblemNote } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { RungFigure } from "../figure/FigureView";
import { papers, type Paper } from "../frame/papers";
import { OnPaper } from "../theme/Look";
import { say, sayRich } from "../words/say";

// Around it a page has margins of ten millimetres.
const margins = 20;

const Paperlike = styled.article<{ $paper: Paper; $dense: boolean }>`
  width: ${({ $paper }) => papers[$paper].width - margins}mm;
  max-width: 100%;
  overflow-x: auto;
  min-height: ${({ $paper }) => papers[$paper].height - margins - 1}mm;
  margin: 0 auto;
  padding: 8mm;
  background: white;
  color: ${({ theme }) => theme.colour.ink};
  box-shadow: 0 0 0 1px ${({ theme }) => theme.colour.rule};
  font-size: ${({ $dense }) => ($dense ? 12 : 15)}px;
  line-height: ${({ $dense }) => ($dense ? 1.2 : 1.3)};
  display: flex;
  flex-direction: column;
  gap: ${({ $dense }) => ($dense ? 1.5 : 3)}mm;
  @media print {
    overflow: visible;
    width: auto;
    min-height: 0;
    padding: 0;
    box-shadow: none;
  }
`;

const SheetHead = styled.header`
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 2px solid ${({ theme }) => theme.colour.ink};
  padding-bottom: 2mm;
  gap: 5mm;
  strong {
    font: 700 22px/1.1 ${({ theme }) => theme.font.display};
  }
  .clinic {
    text-align: end;
  }
  img {
    max-width: 30mm;
    max-height: 10mm;
  }
`;

const PainLine = styled.div`
  display: flex;
  justify-content: space-between;
  border-top: 1px solid ${({ theme }) => theme.colour.ink};
  margin-top: 2mm;
  font-size: 11px;
`;

const Stop = styled.div`
  padding: 1.5mm 3mm;
  background: ${({ theme }) => theme.colour.wash};
  print-color-adjust: exact;
`;

/** Few exercises get larger drawings, in millimetres; five still fit one page, also of a shorter paper. */
function drawing(count: number, paper: Paper) {
  if (count <= 3) return { width: 58, height: 32 };
  const short = papers[paper].height < 290;
  if (count === 4) return { width: 48, height: short ? 22 : 25 };
  return { width: 40, height: short ? 16 : 19 };
}

const Exercise = styled.section<{ $width: number }>`
  display: grid;
  grid-template-columns: ${({ $width }) => $width}mm minmax(0, 1fr);
  gap: 5mm;
  padding-bottom: 1.5mm;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  break-inside: avoid;
  h2 {
    font-size: 15px;
    line-height: 1.15;
  }
`;

const Days = styled.table`
  margin-top: 0.5mm;
  th {
    font-weight: 400;
    font-size: 10px;
    padding: 0 1mm;
    min-width: 8mm;
    white-space: nowrap;
  }
  td {
    text-align: center;
  }
  td.side,
  td.written {
    text-align: start;
    padding-inline-end: 3mm;
    line-height: 1.15;
  }
  td.written {
    padding-inline-start: 3mm;
  }
  i {
    display: inline-block;
    width: 4mm;
    height: 4mm;
    border: 1px solid ${({ theme }) => theme.colour.ink};
  }
`;

/** The home programme as it is printed from the browser: what the PDF says, laid out here. */
export function PrintedSheet(props: { paper: Paper; episodeId: string; record: boolean }) {
  const { episodeId, record } = props;
  const { data: sheet, error } = useQuery({
    queryKey: keys.sheet(episodeId, record),
    queryFn: () =>
      got(api.GET("/api/episodes/{id}/sheet", { params: { path: { id: episodeId }, query: { record } } })),
  });
  if (!sheet) return <ProblemNote error={error} />;
  return (
    <>
      {!sheet.contact && (
        <div className="screen-only">
          <Note>
            {sayRich("take-home.nobody-to-call", {
              link: (chunks) => <Link to="/settings">{chunks}</Link>,
            })}
          </Note>
        </div>
      )}
      <OnPaper>
        <Client sheet={sheet} paper={props.paper} />
        {sheet.record && <Record record={sheet.record} paper={props.paper} />}
      </OnPaper>
    </>
  );
}

function Client({ sheet, paper }: { sheet: Sheet; paper: Paper }) {
  const count = sheet.exercises.length;
  return (
    <Paperlike
      $paper={paper}
      $dense={count >= 5}
      aria-label={say("take-home.sheet-to-take-home")}
      // Where it is wider than the screen it is scrolled by keys too.
      tabIndex={0}
    >
      <SheetHead>
        <div>
          <strong>{sheet.clientName}</strong>
          <p>{sheet.line}</p>
          {sheet.between && <p>{sheet.between}</p>}
        </div>
        <div className="clinic">
          {sheet.hasMark && <img src="/api/clinic/mark" alt="" />}
          <small>
            {sheet.clinicName} · {sheet.made}
          </small>
        </div>
      </SheetHead>
      {sheet.exercises.map((exercise, i) => (
        <OneExercise
          key={exercise.rungId + i}
          number={i + 1}
          count={count}
          paper={paper}
          exercise={exercise}
          days={sheet.days}
        />
      ))}
      <p>{sheet.pain}</p>
      <PainLine aria-hidden>
        {Array.from({ length: 11 }, (_, i) => (
          <span key={i}>{i}</span>
        ))}
      </PainLine>
      <Stop>
        <p>
          <strong>{sheet.stop}</strong>
        </p>
        {sheet.contact && (
          <p>
            <strong>{sheet.contact}</strong>
          </p>
        )}
      </Stop>
      {sheet.nextVisit && <p>{sheet.nextVisit}</p>}
    </Paperlike>
  );
}

function OneExercise(props: {
  number: number;
  count: number;
  paper: Paper;
  exercise: SheetExercise;
  days: string[];
}) {
  const { exercise } = props;
  const size = drawing(props.count, props.paper);
  const width = `${size.width}mm`;
  const height = `${size.height}mm`;
  const { rungId, side } = exercise;
  return (
    <Exercise $width={size.width}>
      <div>
        {exercise.moves && (
          <RungFigure rungId={rungId} side={side} frame="start" width={width} height={height} />
        )}
        <RungFigure rungId={rungId} side={side} range={exercise.range} width={width} height={height} />
      </div>
      <div>
        <h2>
          {props.number}. {exercise.name}
        </h2>
        <p>
          {exercise.lines.join(" ")} <strong>{exercise.feel}</strong> {exercise.notFeel}
        </p>
        {exercise.changes.map((change) => (
          <p key={change}>
            <strong>{change}</strong>
          </p>
        ))}
        <Days>
          <thead>
            <tr>
              <th />
              {props.days.map((day) => (
                <th key={day} scope="col">
                  {day}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {exercise.doses.map((dose) => (
              <tr key={dose.side}>
                <td className="side">
                  {dose.side !== "both" && <SideTag side={dose.side} />} <strong>{dose.figures}</strong>
                </td>
                {exercise.days.map((does, i) => (
                  <td key={i}>{does && <i />}</td>
                ))}
                <td className="written">{dose.written}</td>
              </tr>
            ))}
          </tbody>
        </Days>
      </div>
    </Exercise>
  );
}

/** The practitioner's page, after the client's and on a page of its own. */
function Record({ record, paper }: { record: NonNullable<Sheet["record"]>; paper: Paper }) {
  return (
    <Paperlike $paper={paper} $dense={false} style={{ breakBefore: "page" }} aria-label={record.title}>
      <h2>{record.title}</h2>
      {record.lines.map((line, i) => (
        <p key={i} style={{ whiteSpace: "pre-wrap" }}>
          {line}
        </p>
      ))}
    </Paperlike>
  );
}
