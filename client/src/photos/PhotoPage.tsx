import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link, useNavigate, useParams } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { findRung, keys, useLibrary } from "../api/queries";
import type { EpisodeView, PhotoPoint, PhotoReading, PhotoSpot, PhotoView } from "../api/types";
import { liveTrials } from "../capture/liveTrial";
import { useCapture } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Checkbox, Choice, NumberField } from "../controls/fields";
import { Columns, Empty, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Picker } from "../controls/Picker";
import { SideTag } from "../controls/SideTag";
import { useTrialHome } from "../frame/useTrialHome";
import { useVisit } from "../frame/useVisit";
import { AngleList } from "./AngleList";
import { pictureOf } from "./picture";
import { pictureFile } from "./sampleFile";
import { PointList } from "../figure/PointList";
import { PhotoStage, type Picture } from "../figure/PhotoStage";
import { aids, nextOf, readingOf, spotWords, viewWords, type SpotName, type Spots } from "../figure/spots";
import { say } from "../words/say";

type Loaded = Picture & { blob: Blob };

/** Points on a photograph of this trial, and the angles they come to; the picture itself stays only if it is said so. */
export function PhotoPage() {
  const { trialId = "" } = useParams();
  const { visitId, episode } = useVisit();
  const { data: library } = useLibrary();
  const { events, record, ready } = useCapture(visitId);
  const go = useNavigate();
  const [picture, setPicture] = useState<Loaded | null>(null);
  const [view, setView] = useState<PhotoView>("front");
  const [spots, setSpots] = useState<Spots>({});
  const [putting, setPutting] = useState<SpotName | null>(null);
  const [centimetres, setCentimetres] = useState<number | null>(null);
  const [keeping, setKeeping] = useState(false);

  const trial = library && liveTrials(events, library).find((t) => t.trialId === trialId);
  const home = useTrialHome(trial?.purpose);

  const load = useMutation({
    mutationFn: async (file: Blob | Promise<Blob>) => pictureOf(await file),
    onSuccess: setPicture,
  });
  const begin = (file: Blob | Promise<Blob>, from: PhotoView) => {
    setSpots({});
    setPutting(null);
    setView(from);
    load.mutate(file);
  };
  const asked = useAsked(view);
  const reading = readingOf(view, picture ?? { width: 1, height: 1 }, asked, spots, centimetres);
  const angles = useAngles(reading, picture !== null);
  const save = useMutation({
    mutationFn: async () => {
      const image = keeping && picture ? await keep(picture.blob, visitId, trialId) : null;
      record(trialId, "photo-measured", { photo: { ...reading, image } });
    },
    onSuccess: () => void go(home.path),
  });

  if (!library || !ready) return null;
  if (!trial) {
    return (
      <Empty title={say("photos.there-is-no-such-trial")}>
        <p>{say("photos.it-was-discarded-or-this")}</p>
        <Link to={home.path}>{home.words}</Link>
      </Empty>
    );
  }
  const next = putting ?? nextOf(asked, spots);
  const put = (spot: PhotoSpot) => {
    if (!next) return;
    setSpots({ ...spots, [next]: spot });
    const at = aids.indexOf(next);
    // The other end of a line follows the first one.
    setPutting(at >= 0 && at % 2 === 0 ? (aids[at + 1] ?? null) : null);
  };
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>
          {say("photos.measure-a-photograph")}{" "}
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("photos.of-rung", { rung: findRung(library, trial.rungId).rung.name })}{" "}
            {trial.side !== "both" && <SideTag side={trial.side} />}
          </Quiet>
        </h1>
        <Row $gap={4}>
          <FileTrigger acceptedFileTypes={["image/*"]} onSelect={(l) => l?.[0] && begin(l[0], view)}>
            <Button $small $quiet={picture !== null}>
              {picture ? say("photos.another-photograph") : say("photos.take-or-choose-a-photograph")}
            </Button>
          </FileTrigger>
          <Picker
            label={say("photos.a-sample-picture")}
            hideLabel
            placeholder={say("photos.sample-picture")}
            onPick={(words) => {
              const sample = library.photoSamples.find((s) => s.words === words);
              if (sample) begin(pictureFile(sample), sample.view);
            }}
            options={library.photoSamples.map((s) => ({ value: s.words, label: s.words }))}
            dashed
          />
          <Link to={home.path}>{home.words}</Link>
        </Row>
      </Row>
      <ProblemNote error={load.error} />
      {!picture ? (
        <Small>{say("photos.stand-square-to-the-client")}</Small>
      ) : (
        <Columns $at="minmax(0, 1fr) 440px" style={{ gap: 20 }}>
          <Stack $gap={2}>
            <strong role="status">
              {next
                ? say("photos.tap-point", { point: spotWords[next] })
                : say("photos.all-points-are-there-drag")}
            </strong>
            <PhotoStage
              picture={picture}
              spots={spots}
              onPut={put}
              onMove={(name, spot) => setSpots((was) => ({ ...was, [name]: spot }))}
              told={(name, at) =>
                say("photos.spotwords-x-across-y-down", {
                  spotWords: spotWords[name],
                  x: Math.round(at.x),
                  y: Math.round(at.y),
                })
              }
            />
          </Stack>
          <Stack $gap={4}>
            <Choice
              label={say("photos.seen-from-in-front-from")}
              value={view}
              onChange={(v) => {
                setView(v);
                setSpots({});
                setPutting(null);
              }}
              options={(Object.keys(viewWords) as PhotoView[]).map((v) => ({
                value: v,
                label: viewWords[v],
              }))}
            />
            <PointList
              label={say("photos.points")}
              asked={asked}
              spots={spots}
              next={next}
              onPick={setPutting}
            >
              <li>
                <Button $small $quiet={!next?.startsWith("plumb")} onPress={() => setPutting("plumb-top")}>
                  {spots["plumb-bottom"] ? "✓ " : ""}
                  {say("photos.upright")}
                </Button>
              </li>
              <li>
                <Button $small $quiet={!next?.startsWith("length")} onPress={() => setPutting("length-from")}>
                  {spots["length-to"] ? "✓ " : ""}
                  {say("photos.known-length")}
                </Button>
              </li>
            </PointList>
            {spots["length-to"] && (
              <NumberField
                label={say("photos.that-length-centimetres")}
                value={centimetres}
                onChange={setCentimetres}
                min={1}
                max={300}
              />
            )}
            <AngleList angles={angles.data ?? []} />
            {angles.error instanceof ProblemError && (
              <Small role="alert">{angles.error.fields[0]?.message ?? angles.error.message}</Small>
            )}
            <Checkbox selected={keeping} onChange={setKeeping}>
              {say("photos.keep-the-picture-too-not")}
            </Checkbox>
            {keeping && episode && episode.photoConsent !== true && <Consent episode={episode} />}
            <Button
              isDisabled={
                (angles.data?.length ?? 0) === 0 ||
                angles.isError ||
                save.isPending ||
                (keeping && episode?.photoConsent !== true)
              }
              onPress={() => save.mutate()}
            >
              {say("photos.store-with-the-trial")}
            </Button>
            <ProblemNote error={save.error} />
          </Stack>
        </Columns>
      )}
    </Stack>
  );
}

const compute = (photo: PhotoReading) => got(api.POST("/api/compute/photo", { body: photo }));

/** What can be pointed at in a picture from there. */
function useAsked(view: PhotoView): PhotoPoint[] {
  const { data } = useQuery({
    queryKey: ["photo-asked", view],
    queryFn: () => compute({ view, width: 1, height: 1, points: [], length: null, plumb: null, image: null }),
    staleTime: Infinity,
  });
  return data?.asked ?? [];
}

function useAngles(photo: PhotoReading, wanted: boolean) {
  return useQuery({
    queryKey: ["photo-angles", photo],
    queryFn: () => compute(photo),
    select: (answer) => answer.angles,
    enabled: wanted && photo.points.length > 1,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
}

/** A picture stays only where the client was asked, and agreed. */
function Consent({ episode }: { episode: EpisodeView }) {
  const queries = useQueryClient();
  const tell = useMutation({
    mutationFn: (given: boolean) =>
      got(
        api.PUT("/api/episodes/{id}/photo-consent", {
          params: { path: { id: episode.id } },
          body: { given },
        }),
      ),
    onSuccess: (stored) => queries.setQueryData(keys.episode(episode.id), stored),
  });
  return (
    <Note>
      <Stack $gap={3}>
        <p>
          {episode.photoConsent === false
            ? say("photos.the-client-did-not-agree")
            : say("photos.ask-whether-the-client-agrees")}
        </p>
        <Row>
          <Button $small isDisabled={tell.isPending} onPress={() => tell.mutate(true)}>
            {say("photos.agrees")}
          </Button>
          {episode.photoConsent === null && (
            <Button $quiet $small isDisabled={tell.isPending} onPress={() => tell.mutate(false)}>
              {say("photos.does-not-agree")}
            </Button>
          )}
        </Row>
        <ProblemNote error={tell.error} />
      </Stack>
    </Note>
  );
}

async function keep(blob: Blob, visitId: string, trialId: string): Promise<string> {
  const answer = await got(
    api.POST("/api/visits/{visitId}/trials/{trialId}/photos", {
      params: { path: { visitId, trialId } },
      body: blob as unknown as string,
      bodySerializer: (body) => body,
      headers: { "Content-Type": "image/jpeg" },
    }),
  );
  return answer.id;
}
