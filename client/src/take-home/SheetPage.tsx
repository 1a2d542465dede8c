import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled, { createGlobalStyle } from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys, useLibrary, usePlan } from "../api/queries";
import type { EpisodeView, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox } from "../controls/fields";
import { Empty, Row, Stack } from "../controls/layout";
import { addDays, dayWords, timeWords, today } from "../api/clinicTime";
import { Closed, isHeld } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { Waits } from "../frame/Waits";
import { CalendarPanel } from "./CalendarPanel";
import { HomeAddress } from "./HomeAddress";
import { MomentField } from "../controls/DateField";
import { PaperChoice, papers, type Paper } from "../frame/papers";
import { PrintedSheet } from "./PrintedSheet";
import { say, sayRich } from "../words/say";

/** The printed page is the sheet alone, edge to edge of its margins. */
const PrintPage = createGlobalStyle<{ $paper: Paper }>`
  @page { size: ${({ $paper }) => `${papers[$paper].width}mm ${papers[$paper].height}mm`}; margin: 10mm; }
  @media print {
    main { padding: 0 !important; max-width: none !important; }
  }
`;

export function SheetPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data: plan, error } = usePlan(episode?.id ?? "");
  const [paper, setPaper] = useState<Paper>("a4");
  const [large, setLarge] = useState(false);
  const [record, setRecord] = useState(false);
  if (!episode || !library) return null;
  if (isHeld(episode) && !episode.dischargedOn) return <Closed episode={episode} visitId={visitId} />;
  if (!plan) return <Waits error={error} />;
  const revision = plan.revisions.at(-1);
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
    <Stack $gap={4}>
      <PrintPage $paper={paper} />
      <Row $between $gap={4} className="screen-only">
        <h1>{say("take-home.take-home")}</h1>
        <Row>
          <PdfLink
            href={`/api/episodes/${episode.id}/sheet.pdf?paper=${paper}&large=${large}&record=${record}`}
            target="_blank"
            rel="noreferrer"
          >
            {say("take-home.open-the-pdf")}
          </PdfLink>
          <a href={`/api/episodes/${episode.id}/home.html`} download style={{ fontWeight: 600 }}>
            {say("take-home.for-the-phone")}
          </a>
          <Button $quiet onPress={() => window.print()}>
            {say("take-home.print-this-page")}
          </Button>
        </Row>
      </Row>
      <Beside>
        <PrintedSheet paper={paper} episodeId={episode.id} record={record} />
        <Stack $gap={4} className="screen-only">
          <PaperChoice value={paper} onChange={setPaper} />
          <div>
            <Checkbox selected={large} onChange={setLarge}>
              {say("take-home.large-print")}
            </Checkbox>
            <Checkbox selected={record} onChange={setRecord}>
              {say("take-home.page-for-the-practitioner")}
            </Checkbox>
          </div>
          <Booking key={next?.id} episode={episode} next={next} />
          <HomeAddress episodeId={episode.id} />
          <CalendarPanel episodeId={episode.id} library={library} />
        </Stack>
      </Beside>
    </Stack>
  );
}

/** The sheet first, what is about it beside it. */
const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 350px;
  gap: ${({ theme }) => theme.space(6)};
  align-items: start;
  @media (max-width: 68.75em) {
    grid-template-columns: minmax(0, 1fr);
  }
  @media print {
    display: block;
  }
`;

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
const inAWeek = () => `${addDays(today(), 7)}T10:00`;

function Booking(props: { episode: EpisodeView; next: VisitView | null }) {
  const queries = useQueryClient();
  const [at, setAt] = useState(inAWeek);
  const book = useMutation({
    mutationFn: (plannedAt: string) =>
      got(
        api.POST("/api/episodes/{id}/visits", {
          params: { path: { id: props.episode.id } },
          body: { plannedAt, fromPaper: false, anyway: false },
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
