import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useRef, useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled, { useTheme } from "styled-components";
import { api, got } from "../api/client";
import { dayWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { BodyChart, ChartPattern, ChartQuestion, ChartSheet, PainKind, VisitChart } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, Scale, TextField } from "../controls/fields";
import { Columns, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Picker } from "../controls/Picker";
import { useVisit } from "../frame/useVisit";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";
import { ChartDrawing, Pattern, viewWords } from "./ChartDrawing";

/** Four sides in a row, as tall as fits; a phone has two and two. */
const Bodies = styled.div`
  display: grid;
  grid-template-columns: repeat(4, auto);
  justify-content: space-between;
  gap: ${({ theme }) => theme.space(2)};
  @media (max-width: 37.5em) {
    grid-template-columns: 1fr 1fr;
    justify-items: center;
  }
`;

const useSheet = () =>
  useQuery({
    queryKey: keys.chartSheet,
    queryFn: () => got(api.GET("/api/body-chart")),
    staleTime: Infinity,
  });

/** Where it hurts: drawn by finger on four sides of a body, or named; what the drawing asks for is asked at once. */
export function ChartPage() {
  const { episodeId, visitId } = useVisit();
  const { data: sheet, error: noSheet } = useSheet();
  const { data: view, error } = useQuery({
    queryKey: keys.chart(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/body-chart", { params: { path: { visitId } } })),
    enabled: visitId !== "",
  });
  if (!sheet || !view) return <Waits error={noSheet ?? error} />;
  return <Editor key={visitId} episodeId={episodeId} visitId={visitId} sheet={sheet} view={view} />;
}

/** The chart as it is drawn; each stroke is kept as it is made, one after the other. */
function useChart(episodeId: string, visitId: string, view: VisitChart) {
  const queries = useQueryClient();
  const [chart, setChart] = useState<BodyChart>(view.chart);
  const [error, setError] = useState<unknown>(null);
  const version = useRef(view.version);
  const chain = useRef(Promise.resolve());
  /** @param reason needed where something may rest on what stands there */
  const keep = (next: BodyChart, reason: string | null) => {
    setChart(next);
    chain.current = chain.current.then(async () => {
      try {
        const stored = await got(
          api.PUT("/api/visits/{visitId}/body-chart", {
            params: { path: { visitId } },
            body: { chart: next, version: version.current, reason },
          }),
        );
        version.current = stored.version;
        setError(null);
        queries.setQueryData(keys.chart(visitId), stored);
        void queries.invalidateQueries({ queryKey: keys.episode(episodeId) });
      } catch (problem) {
        setError(problem);
        // What stands there is shown again; what was not kept is drawn once more.
        const stored = await queries.fetchQuery({
          queryKey: keys.chart(visitId),
          queryFn: () => got(api.GET("/api/visits/{visitId}/body-chart", { params: { path: { visitId } } })),
          staleTime: 0,
        });
        version.current = stored.version;
        setChart(stored.chart);
      }
    });
  };
  return { chart, keep, error };
}

function Editor(props: { episodeId: string; visitId: string; sheet: ChartSheet; view: VisitChart }) {
  const { sheet, view } = props;
  const { chart, keep: keepWith, error } = useChart(props.episodeId, props.visitId, view);
  const [reason, setReason] = useState("");
  const held = view.settled && reason.trim() === "";
  const keep = (next: BodyChart) => keepWith(next, reason.trim() || null);
  const [kind, setKind] = useState<PainKind>("ache");
  const [strength, setStrength] = useState(5);
  const add = (figure: ChartSheet["figures"][number]["view"], outline: number[]) =>
    keep({ ...chart, areas: [...chart.areas, { view: figure, kind, strength, outline }] });
  const numbered = chart.areas.map((area, i) => ({ area, number: i + 1 }));
  const names = Object.fromEntries(sheet.kinds.map((k) => [k.kind, k.name]));
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>{say("charts.body-chart")}</h1>
        <a href={`/api/visits/${props.visitId}/body-chart.svg`} target="_blank" rel="noreferrer">
          {say("charts.as-a-picture")}
        </a>
      </Row>
      <Columns $at="minmax(0, 1.9fr) minmax(280px, 1fr)" style={{ gap: 24 }}>
        <Stack $gap={3}>
          <Choice
            label={say("charts.what-it-feels-like")}
            value={kind}
            onChange={setKind}
            options={sheet.patterns.map((pattern) => ({
              value: pattern.kind,
              label: <Swatch pattern={pattern} name={names[pattern.kind] ?? ""} />,
            }))}
          />
          <Scale label={say("charts.how-strong")} value={strength} onChange={setStrength} />
          <Bodies>
            {sheet.figures.map((figure) => (
              <figure key={figure.view} style={{ margin: 0, textAlign: "center" }}>
                <ChartDrawing
                  figure={figure}
                  patterns={sheet.patterns}
                  areas={numbered.filter((n) => n.area.view === figure.view)}
                  height="min(390px, 52vh)"
                  onDraw={held ? undefined : (outline) => add(figure.view, outline)}
                />
                <Small as="figcaption">{viewWords[figure.view]}</Small>
              </figure>
            ))}
          </Bodies>
          <Small>{say("charts.round-it-with-a-finger")}</Small>
        </Stack>
        <Stack $gap={4}>
          <ProblemNote error={error} />
          {view.settled && (
            <TextField
              label={say("charts.why-is-it-drawn-anew")}
              hint={say("charts.settled")}
              value={reason}
              onChange={setReason}
            />
          )}
          <Drawn
            held={held}
            chart={chart}
            says={
              view.says.length === chart.areas.length
                ? view.says
                : chart.areas.map((a) => names[a.kind] ?? "")
            }
            onRemove={(i) => keep({ ...chart, areas: chart.areas.filter((_, j) => j !== i) })}
          />
          {!held && <ByName sheet={sheet} onPick={add} />}
          <Answered view={view} />
          <Earlier view={view} sheet={sheet} />
        </Stack>
      </Columns>
      <Ask
        question={view.questions.find((q) => q.yes === null || q.yes === undefined) ?? null}
        onAnswer={(question, yes) =>
          keep({
            ...chart,
            answers: [
              ...(chart.answers ?? []).filter((a) => a.question !== question.id || a.side !== question.side),
              { question: question.id, side: question.side, yes },
            ],
          })
        }
      />
    </Stack>
  );
}

function Swatch(props: { pattern: ChartPattern; name: string }) {
  const { colour } = useTheme();
  const id = useId();
  return (
    <span style={{ display: "inline-flex", alignItems: "center", gap: 8 }}>
      <svg width={28} height={28} viewBox="0 0 90 90" aria-hidden style={{ background: colour.sheet }}>
        <defs>
          <Pattern id={id} pattern={props.pattern} ink={colour.clay} />
        </defs>
        <rect width={90} height={90} fill={`url(#${id})`} stroke={colour.clay} strokeWidth={6} />
      </svg>
      {props.name}
    </span>
  );
}

function Drawn(props: { held: boolean; chart: BodyChart; says: string[]; onRemove: (i: number) => void }) {
  if (props.chart.areas.length === 0) return <p>{say("charts.nothing-drawn")}</p>;
  return (
    <ol style={{ margin: 0, paddingInlineStart: 22 }} aria-label={say("charts.drawn")}>
      {props.chart.areas.map((_, i) => (
        <li key={i}>
          <Row $between style={{ flexWrap: "nowrap" }}>
            <span>{props.says[i]}</span>
            <Button
              $quiet
              $small
              isDisabled={props.held}
              aria-label={say("charts.remove-area", { number: i + 1 })}
              onPress={() => props.onRemove(i)}
            >
              ✕
            </Button>
          </Row>
        </li>
      ))}
    </ol>
  );
}

/** Without drawing: a part of the body by its name. */
function ByName(props: {
  sheet: ChartSheet;
  onPick: (view: ChartSheet["figures"][number]["view"], outline: number[]) => void;
}) {
  const { sheet } = props;
  const parts = sheet.zones.flatMap((zone) => {
    for (const figure of sheet.figures) {
      const part = figure.parts.find((p) => p.zone === zone.zone && p.side === zone.side);
      if (part) return [{ name: zone.name, view: figure.view, outline: part.outline }];
    }
    return [];
  });
  return (
    <Picker
      label={say("charts.add-by-name")}
      placeholder={say("charts.a-part-of-the-body")}
      onPick={(i) => {
        const part = parts[Number(i)];
        if (part) props.onPick(part.view, part.outline);
      }}
      options={parts.map((part, i) => ({ value: String(i), label: part.name }))}
    />
  );
}

function Answered({ view }: { view: VisitChart }) {
  const answered = view.questions.filter((q) => q.yes !== null && q.yes !== undefined);
  if (answered.length === 0) return null;
  return (
    <Ruled>
      {answered.map((q) => (
        <p key={`${q.id} ${q.side}`}>
          {q.words} <strong>{q.yes ? say("charts.yes") : say("charts.no")}</strong>
        </p>
      ))}
    </Ruled>
  );
}

function Earlier({ view, sheet }: { view: VisitChart; sheet: ChartSheet }) {
  const [latest] = view.earlier;
  if (!latest) return null;
  return (
    <Ruled aria-label={say("charts.earlier")}>
      <Stack $gap={3}>
        <p>{latest.change}</p>
        {view.earlier.map((earlier) => (
          <div key={earlier.visitId}>
            <Small>
              {say("charts.visit-number", { number: earlier.number })} <Quiet>{dayWords(earlier.day)}</Quiet>
            </Small>
            <Row $gap={1}>
              {sheet.figures.map((figure) => (
                <ChartDrawing
                  key={figure.view}
                  figure={figure}
                  patterns={sheet.patterns}
                  areas={earlier.chart.areas
                    .map((area, i) => ({ area, number: i + 1 }))
                    .filter((n) => n.area.view === figure.view)}
                  height="130px"
                />
              ))}
            </Row>
          </div>
        ))}
      </Stack>
    </Ruled>
  );
}

/** What the drawing asks for, at once: it is not left without an answer. */
function Ask(props: {
  question: ChartQuestion | null;
  onAnswer: (question: ChartQuestion, yes: boolean) => void;
}) {
  const { question } = props;
  return (
    <Veil isOpen={question !== null} isKeyboardDismissDisabled>
      <Sheet>
        <Dialog role="alertdialog">
          {question && (
            <Stack $gap={4}>
              <Heading slot="title">{question.words}</Heading>
              <Small>
                {question.flag ? say("charts.a-yes-is-a-red-flag") : say("charts.a-yes-counts-as-leg-pain")}
              </Small>
              <Row>
                <Button onPress={() => props.onAnswer(question, true)}>{say("charts.yes")}</Button>
                <Button $quiet onPress={() => props.onAnswer(question, false)}>
                  {say("charts.no")}
                </Button>
              </Row>
            </Stack>
          )}
        </Dialog>
      </Sheet>
    </Veil>
  );
}
