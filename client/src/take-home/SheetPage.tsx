import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled, { createGlobalStyle } from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { findRung, keys, useCalendar, useClinic, useLibrary, usePlan } from "../api/queries";
import type { CalendarView, EpisodeView, Library, PlanItem, PlanRevision, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, Choice } from "../controls/fields";
import { Empty, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { addDays, dayOf, daysBetween, dayWords, timeWords, today, weekdayWords } from "../api/clinicTime";
import { doseWords, spellWords, strategyWords, switchOnWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { CalendarPanel } from "./CalendarPanel";
import { MomentField } from "../controls/DateField";
import { say, sayRich } from "../words/say";

type Paper = "A4" | "Letter";

/** The printed page is the sheet alone, edge to edge of its margins. */
const PrintPage = createGlobalStyle<{ $paper: Paper }>`
  @page { size: ${({ $paper }) => $paper}; margin: 10mm; }
  @media print {
    .screen-only { display: none !important; }
    main { padding: 0 !important; max-width: none !important; }
  }
`;

export function SheetPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data: plan, error } = usePlan(episode?.id ?? "");
  const { data: calendar } = useCalendar(episode?.id ?? "");
  const { data: clinic } = useClinic();
  const [paper, setPaper] = useState<Paper>("A4");
  const [large, setLarge] = useState(false);
  const [record, setRecord] = useState(false);
  if (!episode || !library) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  if (error && !plan) return <ProblemNote error={error} />;
  const revision = plan?.revisions.at(-1);
  if (!plan) return null;
  if (!revision || revision.plan.items.length === 0) {
    return (
      <Empty title={say("take-home.nothing-to-take-home-yet")}>
        <p>{say("take-home.the-sheet-is-made-from")}</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/plan`}>{say("take-home.go-to-the-plan")}</Link>
      </Empty>
    );
  }
  const here = episode.visits.find((v) => v.id === visitId);
  const next = episode.visits.find((v) => here && v.number > here.number && v.state === "planned") ?? null;
  return (
    <Stack $gap={5}>
      <PrintPage $paper={paper} />
      <div className="screen-only">
        <Row $between $gap={6} style={{ alignItems: "flex-end" }}>
          <h1>{say("take-home.take-home")}</h1>
          <Choice
            label={say("take-home.paper")}
            value={paper}
            onChange={setPaper}
            options={[
              { value: "A4", label: say("take-home.a4") },
              { value: "Letter", label: say("take-home.letter") },
            ]}
          />
          <Checkbox selected={large} onChange={setLarge}>
            {say("take-home.large-print")}
          </Checkbox>
          <Checkbox selected={record} onChange={setRecord}>
            {say("take-home.page-for-the-practitioner")}
          </Checkbox>
          <PdfLink
            href={`/api/episodes/${episode.id}/sheet.pdf?paper=${paper === "A4" ? "a4" : "letter"}&large=${large}&record=${record}`}
            target="_blank"
            rel="noreferrer"
          >
            {say("take-home.open-the-pdf")}
          </PdfLink>
          <Button $quiet onPress={() => window.print()}>
            {say("take-home.print-this-page")}
          </Button>
          <Booking key={next?.id} episode={episode} next={next} />
        </Row>
      </div>
      <CalendarPanel episodeId={episode.id} library={library} />
      <Sheet
        paper={paper}
        episode={episode}
        revision={revision}
        library={library}
        next={next}
        calendar={calendar}
        contact={clinic?.contact ?? ""}
      />
    </Stack>
  );
}

const PdfLink = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: ${({ theme }) => theme.target};
  padding: 0 ${({ theme }) => theme.space(5)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.ink};
  color: ${({ theme }) => theme.colour.sheet};
  font-weight: 500;
  text-decoration: none;
`;

/** Tomorrow week at ten, unless somebody says otherwise. */
const inAWeek = () => say("take-home.today-t10-00", { today: addDays(today(), 7) });

function Booking(props: { episode: EpisodeView; next: VisitView | null }) {
  const queries = useQueryClient();
  const [at, setAt] = useState(inAWeek);
  const book = useMutation({
    mutationFn: (plannedAt: string) =>
      got(
        api.POST("/api/episodes/{id}/visits", {
          params: { path: { id: props.episode.id } },
          body: { plannedAt },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.episode(props.episode.id) }),
  });
  if (props.next) {
    return (
      <p>
        {sayRich("take-home.next-visit-plannedat-plannedat2", {
          plannedAt: dayWords(props.next.plannedAt),
          strong: (chunks) => <strong>{chunks}</strong>,
          plannedAt2: timeWords(props.next.plannedAt),
        })}
      </p>
    );
  }
  const problem = book.error instanceof ProblemError ? book.error.field("plannedAt") : undefined;
  return (
    <Row style={{ alignItems: "flex-end" }}>
      <MomentField label={say("take-home.next-visit")} value={at} onChange={setAt} error={problem} />
      <Button $quiet isDisabled={!at || book.isPending} onPress={() => book.mutate(`${at}:00`)}>
        {say("take-home.plan-the-visit")}
      </Button>
    </Row>
  );
}

const sizes: Record<Paper, { width: string; minHeight: string }> = {
  A4: { width: "190mm", minHeight: "276mm" },
  Letter: { width: "196mm", minHeight: "258mm" },
};

const Paperlike = styled.article<{ $paper: Paper; $dense: boolean }>`
  width: ${({ $paper }) => sizes[$paper].width};
  max-width: 100%;
  overflow-x: auto;
  min-height: ${({ $paper }) => sizes[$paper].minHeight};
  margin: 0 auto;
  padding: 8mm;
  background: white;
  box-shadow: 0 0 0 1px ${({ theme }) => theme.colour.rule};
  font-size: ${({ $dense }) => ($dense ? 13 : 15)}px;
  line-height: ${({ $dense }) => ($dense ? 1.25 : 1.3)};
  display: flex;
  flex-direction: column;
  gap: ${({ $dense }) => ($dense ? 2 : 3)}mm;
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
  strong {
    font: 700 22px/1.1 ${({ theme }) => theme.font.display};
  }
`;

/** Few exercises get larger drawings, in millimetres; five still fit one page, and Letter is the shorter one. */
function drawing(count: number, paper: Paper) {
  if (count <= 3) return { width: 58, height: 32 };
  if (count === 4) return { width: 48, height: paper === "A4" ? 25 : 22 };
  return { width: 40, height: paper === "A4" ? 19 : 16 };
}

const Exercise = styled.section<{ $width: number }>`
  display: grid;
  grid-template-columns: ${({ $width }) => $width}mm minmax(0, 1fr);
  gap: 5mm;
  padding-bottom: 3mm;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  break-inside: avoid;
  h2 {
    font-size: 17px;
  }
`;

const Days = styled.table`
  margin-top: 1.5mm;
  th {
    font-weight: 400;
    font-size: 11px;
    padding: 0 1mm;
    min-width: 8mm;
  }
  td {
    text-align: center;
  }
  td.side {
    text-align: left;
    padding-right: 3mm;
  }
  i {
    display: inline-block;
    width: 5mm;
    height: 5mm;
    border: 1px solid ${({ theme }) => theme.colour.ink};
  }
`;

/** Days from tomorrow to the day before the next visit; a week when none is planned, never more than fourteen. */
export function daysToTick(from: string, next: string | null): string[] {
  const span = next ? daysBetween(from, next) : 8;
  return Array.from({ length: Math.max(1, Math.min(14, span - 1)) }, (_, i) => addDays(from, i + 1));
}

/** Done on every day as long as the calendar does not say otherwise. */
function isDone(item: PlanItem, day: string, calendar: CalendarView | undefined) {
  if (!calendar || day > (calendar.days.at(-1)?.day ?? "")) return true;
  return calendar.days.find((d) => d.day === day)?.rungIds.includes(item.rungId) ?? false;
}

function Sheet(props: {
  paper: Paper;
  episode: EpisodeView;
  revision: PlanRevision;
  library: Library;
  next: VisitView | null;
  calendar: CalendarView | undefined;
  contact: string;
}) {
  const { episode, revision, library, next } = props;
  const days = daysToTick(today(), next ? dayOf(next.plannedAt) : null);
  const items = revision.plan.items.filter((item) => item.spell?.kind !== "rest");
  return (
    <Paperlike
      $paper={props.paper}
      $dense={items.length >= 5}
      aria-label={say("take-home.sheet-to-take-home")}
    >
      <SheetHead>
        <strong>{episode.intake.name}</strong>
        <span>
          {say("take-home.about-totalminutes-minutes-a-day", {
            totalMinutes: revision.plan.totalMinutes.toFixed(0),
            strategyWords: strategyWords[revision.plan.strategy],
            switchOnWords: switchOnWords[revision.plan.switchOn],
            revision: revision.revision,
            acceptedAt: dayWords(revision.acceptedAt),
          })}
        </span>
      </SheetHead>
      {items.map((item, i) => (
        <OneExercise
          key={item.id}
          number={i + 1}
          count={items.length}
          paper={props.paper}
          item={item}
          library={library}
          days={days}
          does={(day) => isDone(item, day, props.calendar)}
        />
      ))}
      <p style={{ fontSize: 13 }}>
        {sayRich("take-home.pain-the-worst-of-the", { strong: (chunks) => <strong>{chunks}</strong> })}{" "}
        {days.map((day) => (
          <span key={day} style={{ whiteSpace: "nowrap" }}>
            {weekdayWords(day)} ____{" "}
          </span>
        ))}
      </p>
      <Small style={{ color: "inherit", fontSize: 13, marginTop: "auto" }}>
        <strong>{library.cautions.noPain}</strong> {library.cautions.breath}{" "}
        <strong>{library.cautions.stop}</strong> {library.cautions.sheetSupports}{" "}
        {props.contact && <strong>{say("take-home.call-contact", { contact: props.contact })} </strong>}
        {next &&
          say("take-home.next-visit-plannedat-plannedat2-2", {
            plannedAt: dayWords(next.plannedAt),
            plannedAt2: timeWords(next.plannedAt),
          })}
      </Small>
    </Paperlike>
  );
}

function OneExercise(props: {
  number: number;
  count: number;
  paper: Paper;
  item: PlanItem;
  library: Library;
  days: string[];
  /** Whether it is done on a day: others get no box. */
  does: (day: string) => boolean;
}) {
  const { item } = props;
  const { rung } = findRung(props.library, item.rungId);
  const side = item.doses[0]?.side ?? "both";
  const moves = rung.poses.start !== rung.poses.end;
  const size = drawing(props.count, props.paper);
  const width = `${size.width}mm`;
  const height = `${size.height}mm`;
  return (
    <Exercise $width={size.width}>
      <div>
        {moves && <RungFigure rungId={rung.id} side={side} frame="start" width={width} height={height} />}
        <RungFigure rungId={rung.id} side={side} range={item.doses[0]?.range} width={width} height={height} />
      </div>
      <div>
        <h2>
          {props.number}. {rung.name}
        </h2>
        <p>{say("take-home.movement-breath-breath", { movement: rung.movement, breath: rung.breath })}</p>
        <p>
          {say("take-home.cue-feel-it-in-feel", { cue: item.cue, feel: rung.feel, notFeel: rung.notFeel })}
        </p>
        {(item.notes ?? []).map((note) => (
          <p key={note}>
            <strong>{note}</strong>
          </p>
        ))}
        {spellWords(item.spell).map((words) => (
          <p key={words}>{words}</p>
        ))}
        {item.changes.map((change) => (
          <p key={change}>
            <strong>{say("take-home.for-you")}</strong> {change}.
          </p>
        ))}
        <Days>
          <thead>
            <tr>
              <th />
              {props.days.map((day) => (
                <th key={day} scope="col">
                  {weekdayWords(day)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {item.doses.map(({ side: s, dose, rangeEnds }) => (
              <tr key={s}>
                <td className="side">
                  {s !== "both" && <SideTag side={s} />}{" "}
                  <strong>{doseWords(rangeEnds ? { ...dose, range: 1 } : dose)}</strong>
                  {rangeEnds && <div>{say("take-home.only-rangeends", { rangeEnds })}</div>}
                </td>
                {props.days.map((day) => (
                  <td key={day}>{props.does(day) && <i />}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </Days>
      </div>
    </Exercise>
  );
}
