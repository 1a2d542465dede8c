import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { findRung, useLibrary } from "../api/queries";
import { liveTrials } from "../capture/liveTrial";
import { useCapture } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Empty, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { PracticeConsent } from "../frame/PracticeConsent";
import { useTrialHome } from "../frame/useTrialHome";
import { useVisit } from "../frame/useVisit";
import { AngleList } from "./AngleList";
import { PhotoStage } from "../figure/PhotoStage";
import { spotsOf, viewWords } from "../figure/spots";
import { say } from "../words/say";

/** A photograph that was measured: its points and angles, and the picture where it was kept. */
export function MeasuredPhotoPage() {
  const { trialId = "", eventId = "" } = useParams();
  const { visitId, episode } = useVisit();
  const { data: library } = useLibrary();
  const { events, record, ready } = useCapture(visitId);
  const go = useNavigate();
  const [gone, setGone] = useState(false);
  const [why, setWhy] = useState("");
  const trial = library && liveTrials(events, library).find((t) => t.trialId === trialId);
  const home = useTrialHome(trial?.purpose);
  const photo = trial?.photos.find((p) => p.id === eventId)?.photo;
  const angles = useQuery({
    queryKey: ["photo-angles", photo],
    queryFn: () => got(api.POST("/api/compute/photo", { body: photo! })),
    enabled: photo !== undefined,
  });
  const image = photo?.image ?? null;
  const remove = useMutation({
    mutationFn: (id: string) =>
      got(api.DELETE("/api/photos/{id}", { params: { path: { id }, query: { reason: why } } })),
    onSuccess: () => setGone(true),
  });
  if (!library || !ready) return null;
  if (!trial || !photo) {
    return (
      <Empty title={say("photos.there-is-no-such-photograph")}>
        <p>{say("photos.it-was-taken-back-or")}</p>
        <Link to={home.path}>{home.words}</Link>
      </Empty>
    );
  }
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>
          {say("photos.a-photograph")}{" "}
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("photos.viewwords-of-rung", {
              viewWords: viewWords[photo.view],
              rung: findRung(library, trial.rungId).rung.name,
            })}{" "}
            {trial.side !== "both" && <SideTag side={trial.side} />}
          </Quiet>
        </h1>
        <Link to={home.path}>{home.words}</Link>
      </Row>
      <Columns $at="minmax(0, 1fr) 440px" style={{ gap: 20 }}>
        <PhotoStage
          picture={{
            url: image && !gone ? `/api/photos/${image}` : null,
            width: photo.width,
            height: photo.height,
          }}
          spots={spotsOf(photo)}
        />
        <Stack $gap={4}>
          <AngleList angles={angles.data?.angles ?? []} />
          {image && !gone ? (
            <Stack $gap={2}>
              <TextField
                label={say("photos.why-it-is-removed")}
                value={why}
                onChange={setWhy}
                error={remove.error instanceof ProblemError ? remove.error.field("reason") : undefined}
              />
              <Row>
                <Button $quiet $small isDisabled={!why.trim()} onPress={() => remove.mutate(image)}>
                  {say("photos.take-the-picture-away-keep")}
                </Button>
              </Row>
              {episode && <PracticeConsent episode={episode} />}
            </Stack>
          ) : (
            <Small>{say("photos.only-points-and-angles-are")}</Small>
          )}
          <Button
            $quiet
            $small
            onPress={() => {
              record(trialId, "undone", { undoes: eventId });
              void go(home.path);
            }}
          >
            {say("photos.take-this-measurement-back")}
          </Button>
          <ProblemNote error={angles.error} />
        </Stack>
      </Columns>
    </Stack>
  );
}
