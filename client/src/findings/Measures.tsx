import type { Trial } from "../api/types";
import { Measured } from "../frame/Measured";
import { angleWords } from "../figure/spots";

/** What instruments and photographs told of a trial, and the ways to add to it. */
export function Measures({ trial, visitId }: { trial: Trial; visitId: string }) {
  const photos = trial.photos ?? [];
  return (
    <>
      {photos.map((p) => (
        <p key={p.eventId}>
          {p.angles
            .map(angleWords)
            .map((a) => `${a.name} ${a.value} ${a.words}`)
            .join("; ")}
        </p>
      ))}
      <Measured visitId={visitId} trialId={trial.id} photos={photos.map((p) => p.eventId)} />
    </>
  );
}
