import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { findRung, useLibrary, useRungPage } from "../api/queries";
import type { Library, LoadChanges, Rung, RungPage, Side } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Columns, Note, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { Slider } from "../controls/Slider";
import { doseWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { MovingFigure } from "../figure/MovingFigure";
import { reducedMotion, shownSeconds } from "../figure/motion";
import { FaultGallery } from "./FaultGallery";
import { LibraryHead } from "./LibraryHead";
import { rungPath } from "./LibraryPage";
import { LoadPanel } from "./LoadPanel";

export function RungDetailPage() {
  const { rungId = "" } = useParams();
  const [search] = useSearchParams();
  const episodeId = search.get("episode");
  const { data: library } = useLibrary();
  const [side, setSide] = useState<Side>("left");
  const { data: page, error } = useRungPage(rungId, side, episodeId);
  return (
    <>
      <LibraryHead episodeId={episodeId} clientName={page?.clientName ?? null}>
        <Link to={`/library${episodeId ? `?episode=${episodeId}` : ""}`}>All ladders</Link>
      </LibraryHead>
      <Page>
        <ProblemNote error={page ? null : error} />
        {page && library && (
          <Detail
            key={rungId}
            page={page}
            library={library}
            side={side}
            onSide={setSide}
            episodeId={episodeId}
          />
        )}
      </Page>
    </>
  );
}

interface DetailProps {
  page: RungPage;
  library: Library;
  side: Side;
  onSide: (side: Side) => void;
  episodeId: string | null;
}

function Detail(props: DetailProps) {
  const { page, library, side } = props;
  const { ladder, rung } = findRung(library, page.rungId);
  const [changes, setChanges] = useState<LoadChanges>({ range: 1 });
  return (
    <Columns $at="minmax(0, 1.35fr) minmax(320px, 1fr)">
      <Stack $gap={4}>
        <div>
          <Quiet>{ladder.name}</Quiet>
          <h1>{rung.name}</h1>
        </div>
        <Picture rung={rung} side={side} onSide={props.onSide} range={changes.range ?? 1} />
        <Row $between>
          <Neighbour id={page.easierRungId} word="Easier" {...props} />
          <Neighbour id={page.harderRungId} word="Harder" {...props} />
        </Row>
        <HowTo rung={rung} />
        <FaultGallery rung={rung} side={side} drawn={page.drawnFaults} library={library} />
      </Stack>
      <Stack $gap={6}>
        {page.clientName && <Precautions page={page} />}
        <LoadPanel page={page} side={side} library={library} changes={changes} onChange={setChanges} />
        {!page.clientName && <Precautions page={page} />}
      </Stack>
    </Columns>
  );
}

function Neighbour(props: DetailProps & { id: string | null; word: string }) {
  if (!props.id) return <span />;
  return (
    <Link to={rungPath(props.id, props.episodeId)} style={{ color: "inherit" }}>
      {props.word}: {findRung(props.library, props.id).rung.name}
    </Link>
  );
}

const Stage = styled.div`
  height: 300px;
  padding: ${({ theme }) => theme.space(2)};
  background: ${({ theme }) => theme.colour.sheet};
`;

function Picture(props: { rung: Rung; side: Side; onSide: (side: Side) => void; range: number }) {
  const { rung, side } = props;
  const moves = rung.poses.start !== rung.poses.end || (rung.poses.via ?? []).length > 0;
  const [playing, setPlaying] = useState(false);
  const [through, setThrough] = useState({ share: null as number | null, range: props.range });
  // The slider moved last decides: a new range shows its own end.
  const share = through.range === props.range ? through.share : null;
  const shown = share ?? props.range;
  return (
    <div>
      <Stage>
        {moves && (playing || share !== null || props.range < 1) ? (
          <MovingFigure
            rungId={rung.id}
            side={side}
            moveSeconds={shownSeconds(rung)}
            playing={playing}
            share={shown}
          />
        ) : (
          <RungFigure rungId={rung.id} side={side} frame="together" width="100%" height="100%" />
        )}
      </Stage>
      <Row $between style={{ marginTop: 8 }}>
        {rung.sides === "each" ? (
          <Row $gap={2}>
            <Choice
              label={`Side: ${rung.sideMeans}`}
              value={side}
              onChange={props.onSide}
              options={[
                { value: "left", label: `${sideArrow("left")} left` },
                { value: "right", label: `right ${sideArrow("right")}` },
              ]}
            />
          </Row>
        ) : (
          <Quiet>{rung.sideMeans}</Quiet>
        )}
        {moves && !reducedMotion() && (
          <Button $quiet onPress={() => setPlaying(!playing)}>
            {playing ? "Hold still" : "Show it moving"}
          </Button>
        )}
      </Row>
      {moves && reducedMotion() && (
        <Slider
          label="Through the movement"
          value={Math.round(shown * 100)}
          onChange={(v) => setThrough({ share: v / 100, range: props.range })}
          min={0}
          max={100}
          step={4}
          words={`${Math.round(shown * 100)} %`}
        />
      )}
    </div>
  );
}

const Facts = styled.dl`
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(4)};
  margin: 0;
  dt {
    color: ${({ theme }) => theme.colour.grey};
  }
  dd {
    margin: 0;
  }
`;

function HowTo({ rung }: { rung: Rung }) {
  const facts: [string, React.ReactNode][] = [
    ["Set up", rung.setup.join(". ") + "."],
    ["Move", rung.movement],
    ["As far as", rung.limit],
    ["Breath", rung.breath],
    ["Say", rung.cues.map((cue) => `“${cue}”`).join(" ")],
    ["Feel it in", rung.feel],
    ["Not in", rung.notFeel],
    [
      "Dose",
      <>
        begin with {doseWords(rung.start)}; move on at {doseWords(rung.target)}; never above{" "}
        {doseWords(rung.cap)}
        {rung.sides === "each" && ", each side"}
      </>,
    ],
    ["Needs", rung.equipment.length === 0 ? "nothing" : rung.equipment.join(", ")],
  ];
  return (
    <section aria-label="How it is done">
      <Facts>
        {facts.map(([term, words]) => (
          <div key={term} style={{ display: "contents" }}>
            <dt>{term}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </Facts>
    </section>
  );
}

const effects = { bar: "barred", caution: "with care", prefer: "a good choice" } as const;

function Precautions({ page }: { page: RungPage }) {
  const { data: library } = useLibrary();
  return (
    <section aria-label="Precautions">
      <h2>{page.clientName ? `Precautions of ${page.clientName}` : "Precautions"}</h2>
      {page.notes.length === 0 && (
        <Small>
          {page.clientName ? "None of this client's precautions touches it." : "No precaution touches it."}{" "}
          {library?.cautions.noPain} {library?.cautions.practitionerDecides}
        </Small>
      )}
      <Stack $gap={2} style={{ marginTop: 8 }}>
        {page.notes.map((note) =>
          note.effect === "bar" && page.clientName ? (
            <Note grave key={note.tag + note.words}>
              <strong>Barred</strong>, {note.tag}: {note.words}.
            </Note>
          ) : (
            <p key={note.tag + note.words}>
              <strong>{note.tag}</strong>: {effects[note.effect]}; {note.change ?? note.words}.
            </p>
          ),
        )}
      </Stack>
    </section>
  );
}
