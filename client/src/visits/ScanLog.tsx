import { useMutation } from "@tanstack/react-query";
import { type RefObject, useEffect, useRef, useState } from "react";
import { Dialog, FileTrigger, Heading } from "react-aria-components";
import styled from "styled-components";
import { api, got } from "../api/client";
import { dayWords } from "../api/clinicTime";
import type { HomeCodeTaken } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";
import { isWhole, noParts, partsIn, withPart } from "./logParts";
import { qrIn, qrInPhoto } from "./qrIn";

const Picture = styled.video`
  display: block;
  width: 100%;
  max-height: 44dvh;
  background: ${({ theme }) => theme.colour.ink};
  object-fit: cover;
`;

/** So often a picture of the camera is looked at. */
const lookMs = 250;

/** Takes in the log that a client's phone shows as codes, or hands over as a file. */
export function ScanLog(props: { visitId: string; onTaken: () => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button $quiet $small onPress={() => setOpen(true)}>
        {say("visits.scan-the-log")}
      </Button>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog>{open && <Scanning {...props} onClose={() => setOpen(false)} />}</Dialog>
        </Sheet>
      </Veil>
    </>
  );
}

function Scanning(props: { visitId: string; onTaken: () => void; onClose: () => void }) {
  const [parts, setParts] = useState(noParts);
  const [unread, setUnread] = useState(false);
  const take = useMutation({
    mutationFn: (codes: string[]) =>
      got(
        api.POST("/api/visits/{visitId}/home-log/code", {
          params: { path: { visitId: props.visitId } },
          body: { codes },
        }),
      ),
    onSuccess: props.onTaken,
  });
  const read = (codes: string[]) => {
    const now = codes.reduce(withPart, parts);
    setUnread(codes.length === 0 || now === noParts);
    setParts(now);
    if (isWhole(now) && now !== parts) take.mutate(Object.values(now.codes));
  };
  const picture = useRef<HTMLVideoElement>(null);
  const camera = useCamera(picture, take.isIdle, (code) => read([code]));
  const numbers = Object.keys(parts.codes);
  return (
    <Stack $gap={3}>
      <Row $between>
        <Heading slot="title">{say("visits.scan-the-log")}</Heading>
        <Button $quiet $small onPress={props.onClose}>
          {say("visits.close-scan")}
        </Button>
      </Row>
      {take.data ? (
        <Taken taken={take.data} />
      ) : (
        <>
          {camera === "none" ? (
            <Note>{say("visits.no-camera")}</Note>
          ) : (
            <Picture ref={picture} muted playsInline aria-label={say("visits.camera-picture")} />
          )}
          <p role="status">
            {parts.of > 0
              ? say("visits.codes-read-of", { numbers: numbers.join(", "), of: parts.of })
              : camera !== "none" && say("visits.hold-the-phone-in-view")}
          </p>
          {unread && <Note>{say("visits.no-code-in-it")}</Note>}
          <Row $gap={2}>
            <FileTrigger
              acceptedFileTypes={["image/*"]}
              allowsMultiple
              onSelect={(files) =>
                void Promise.all([...(files ?? [])].map(qrInPhoto)).then(
                  (found) => read(found.filter((code) => code !== null)),
                  () => setUnread(true),
                )
              }
            >
              <Button $quiet $small>
                {say("visits.choose-a-photo")}
              </Button>
            </FileTrigger>
            <FileTrigger
              acceptedFileTypes={["text/plain", ".txt"]}
              onSelect={(files) => void files?.[0]?.text().then((text) => read(partsIn(text)))}
            >
              <Button $quiet $small>
                {say("visits.choose-the-file")}
              </Button>
            </FileTrigger>
          </Row>
          {take.error && (
            <>
              <ProblemNote error={take.error} />
              <Row>
                <Button
                  $quiet
                  $small
                  onPress={() => {
                    setParts(noParts);
                    take.reset();
                  }}
                >
                  {say("visits.scan-again")}
                </Button>
              </Row>
            </>
          )}
        </>
      )}
    </Stack>
  );
}

/** A day that stands as it was written; where the log tells of more pain that is not passed over. */
function keptWords({ day, pain, nextMorning }: HomeCodeTaken["kept"][number]) {
  if (pain !== null) return say("visits.day-phone-says-pain", { day: dayWords(day), pain });
  if (nextMorning !== null) return say("visits.day-phone-says-morning", { day: dayWords(day), nextMorning });
  return dayWords(day);
}

function Taken({ taken }: { taken: HomeCodeTaken }) {
  const days = (of: string[]) => of.map((day) => dayWords(day)).join(", ");
  return (
    <div role="status">
      <p>
        <strong>{say("visits.days-days-taken-in", { days: taken.taken.length })}</strong> {days(taken.taken)}
      </p>
      {taken.there.length > 0 && (
        <Small>{say("visits.were-there-already", { days: days(taken.there) })}</Small>
      )}
      {taken.kept.length > 0 && (
        <Small>
          {say("visits.written-at-the-clinic-stand", { days: taken.kept.map(keptWords).join(", ") })}
        </Small>
      )}
    </div>
  );
}

/** The camera at the back where there is one; looked at until something is read. */
function useCamera(ref: RefObject<HTMLVideoElement | null>, wanted: boolean, onCode: (code: string) => void) {
  const [state, setState] = useState<"opening" | "on" | "none">("opening");
  const told = useRef(onCode);
  useEffect(() => {
    told.current = onCode;
  });
  useEffect(() => {
    if (!wanted) return;
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    const look = async () => {
      const video = ref.current;
      const code =
        video && video.videoWidth > 0 ? await qrIn(video, video.videoWidth, video.videoHeight) : null;
      if (over) return;
      if (code) told.current(code);
      timer = setTimeout(() => void look(), lookMs);
    };
    const begin = async () => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({
          video: { facingMode: "environment", width: { ideal: 1280 } },
        });
      } catch {
        // Refused, none, or not over https.
        return setState("none");
      }
      if (over || !ref.current) return stream.getTracks().forEach((t) => t.stop());
      ref.current.srcObject = stream;
      await ref.current.play().catch(() => undefined);
      setState("on");
      void look();
    };
    void begin();
    return () => {
      over = true;
      clearTimeout(timer);
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, [ref, wanted]);
  return state;
}
