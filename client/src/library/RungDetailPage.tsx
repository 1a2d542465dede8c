import { useRef, useState } from "react";
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
import { ChangingFigure } from "../figure/ChangingFigure";
import { RungFigure } from "../figure/FigureView";
import { saveFile } from "../controls/saveFile";
import { drawingOf, pngOf } from "../figure/drawing";
import { MovingFigure } from "../figure/MovingFigure";
import { reducedMotion, shownSeconds } from "../figure/motion";
import { FaultGallery } from "./FaultGallery";
import { LibraryHead } from "./LibraryHead";
import { rungPath } from "./LibraryPage";
import { LoadPanel } from "./LoadPanel";
import { Term } from "../frame/Term";
import { say } from "../words/say";

export function RungDetailPage() {
  const { rungId = "" } = useParams();
  const [search] = useSearchParams();
  const episodeId = search.get("episode");
  const { data: library } = useLibrary();
  const [side, setSide] = useState<Side>("left");
  const { data: page, error } = useRungPage(rungId, side, episodeId);
  const [way, setWay] = useState({ before: null as string | null, now: rungId });
  if (way.now !== rungId) setWay({ before: way.now, now: rungId });
  return (
    <>
      <LibraryHead episodeId={episodeId} clientName={page?.clientName ?? null}>
        <Link to={`/library${episodeId ? `?episode=${episodeId}` : ""}`}>{say("library.all-ladders")}</Link>
      </LibraryHead>
      <Page>
        <ProblemNote error={page ? null : error} />
        {page && library && (
          <Detail
            key={rungId}
            page={page}
            before={way.before}
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
  /** The rung that was looked at before. */
  before: string | null;
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
        <Picture
          rung={rung}
          before={[page.easierRungId, page.harderRungId].includes(props.before) ? props.before : null}
          side={side}
          onSide={props.onSide}
          range={changes.range ?? 1}
        />
        <Row $between>
          <Neighbour id={page.easierRungId} word={say("library.easier")} {...props} />
          <Neighbour id={page.harderRungId} word={say("library.harder")} {...props} />
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

function Picture(props: {
  rung: Rung;
  before: string | null;
  side: Side;
  onSide: (side: Side) => void;
  range: number;
}) {
  const { rung, side } = props;
  const moves = rung.poses.start !== rung.poses.end || (rung.poses.via ?? []).length > 0;
  const [playing, setPlaying] = useState(false);
  const [through, setThrough] = useState({ share: null as number | null, range: props.range });
  // The slider moved last decides: a new range shows its own end.
  const share = through.range === props.range ? through.share : null;
  const shown = share ?? props.range;
  const stage = useRef<HTMLDivElement>(null);
  const drawing = () => {
    const svg = stage.current?.querySelector("svg");
    return svg ? drawingOf(svg, getComputedStyle(stage.current!).backgroundColor) : null;
  };
  const save = async (kind: "svg" | "png") => {
    const made = drawing();
    if (!made) return;
    const content = kind === "svg" ? new Blob([made.svg], { type: "image/svg+xml" }) : await pngOf(made);
    saveFile(`${rung.name}.${kind}`, content);
  };
  return (
    <div>
      <Stage ref={stage}>
        {moves && (playing || share !== null || props.range < 1) ? (
          <MovingFigure
            rungId={rung.id}
            side={side}
            moveSeconds={shownSeconds(rung)}
            playing={playing}
            share={shown}
          />
        ) : (
          <ChangingFigure before={props.before} rungId={rung.id} side={side} width="100%" height="100%">
            <RungFigure rungId={rung.id} side={side} frame="together" width="100%" height="100%" />
          </ChangingFigure>
        )}
      </Stage>
      <Row $between style={{ marginTop: 8 }}>
        {rung.sides === "each" ? (
          <Row $gap={2}>
            <Choice
              label={say("library.side-sidemeans", { sideMeans: rung.sideMeans })}
              value={side}
              onChange={props.onSide}
              options={[
                { value: "left", label: say("library.arrow-left", { arrow: sideArrow("left") }) },
                { value: "right", label: say("library.arrow-right", { arrow: sideArrow("right") }) },
              ]}
            />
          </Row>
        ) : (
          <Quiet>{rung.sideMeans}</Quiet>
        )}
        <Row $gap={2}>
          {moves && !reducedMotion() && (
            <Button $quiet onPress={() => setPlaying(!playing)}>
              {playing ? say("library.hold-still") : say("library.show-it-moving")}
            </Button>
          )}
          <Button $quiet $small onPress={() => void save("svg")}>
            {say("library.save-svg")}
          </Button>
          <Button $quiet $small onPress={() => void save("png")}>
            {say("library.save-png")}
          </Button>
        </Row>
      </Row>
      {moves && reducedMotion() && (
        <Slider
          label={say("library.through-the-movement")}
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
    [say("library.set-up"), rung.setup.join(". ") + "."],
    [say("library.move"), rung.movement],
    [say("library.as-far-as"), rung.limit],
    [say("library.breath"), rung.breath],
    [say("library.say"), rung.cues.map((cue) => `“${cue}”`).join(" ")],
    [say("library.feel-it-in"), rung.feel],
    [say("library.not-in"), rung.notFeel],
    [
      say("library.dose"),
      <>
        {say("library.dose-steps", {
          start: doseWords(rung.start),
          target: doseWords(rung.target),
          cap: doseWords(rung.cap),
          sides: rung.sides === "each" ? say("library.each-side") : "",
        })}
      </>,
    ],
    [say("library.needs"), rung.equipment.length === 0 ? say("library.nothing") : rung.equipment.join(", ")],
  ];
  return (
    <section aria-label={say("library.how-it-is-done")}>
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

const effects = {
  bar: say("library.barred"),
  caution: say("library.with-care"),
  prefer: say("library.a-good-choice"),
} as const;

function Precautions({ page }: { page: RungPage }) {
  const { data: library } = useLibrary();
  return (
    <section aria-label={say("library.precautions")}>
      <h2>
        {page.clientName
          ? say("library.precautions-of-clientname", { clientName: page.clientName })
          : say("library.precautions")}
      </h2>
      {page.notes.length === 0 && (
        <Small>
          {page.clientName
            ? say("library.none-of-this-clients-precautions")
            : say("library.no-precaution-touches-it")}{" "}
          {library?.cautions.noPain} {library?.cautions.practitionerDecides}
        </Small>
      )}
      <Stack $gap={2} style={{ marginTop: 8 }}>
        {page.notes.map((note) =>
          note.effect === "bar" && page.clientName ? (
            <Note grave key={note.tag + note.words}>
              <strong>
                <Term name="contraindicated">{say("library.barred-2")}</Term>
              </strong>
              , {note.tag}: {note.words}.
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
