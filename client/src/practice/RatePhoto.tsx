import { useState } from "react";
import type { BarePhoto, PhotoReading, PhotoSpot } from "../api/types";
import { Button } from "../controls/Button";
import { Columns, Row, Small, Stack } from "../controls/layout";
import { PointList } from "../figure/PointList";
import { PhotoStage } from "../figure/PhotoStage";
import { nextOf, readingOf, spotWords, type SpotName, type Spots } from "../figure/spots";
import { say } from "../words/say";

/** A photograph without its points: each puts them for themselves. */
export function RatePhoto(props: {
  id: string;
  photo: BarePhoto;
  busy: boolean;
  onRate: (photo: PhotoReading) => void;
}) {
  const { photo } = props;
  const [spots, setSpots] = useState<Spots>({});
  const [putting, setPutting] = useState<SpotName | null>(null);
  const next = putting ?? nextOf(photo.asked, spots);
  const put = (spot: PhotoSpot) => {
    if (!next) return;
    setSpots({ ...spots, [next]: spot });
    setPutting(null);
  };
  const reading = readingOf(photo.view, photo, photo.asked, spots, null);
  return (
    <Columns $at="minmax(0, 1fr) 340px">
      <Stack $gap={2}>
        <strong role="status">
          {next
            ? say("practice.tap-point", { point: spotWords[next] })
            : say("practice.all-points-are-there")}
        </strong>
        <PhotoStage
          picture={{
            url: `/api/practice/recorded/items/${props.id}/picture`,
            width: photo.width,
            height: photo.height,
          }}
          spots={spots}
          onPut={put}
          onMove={(name, spot) => setSpots((was) => ({ ...was, [name]: spot }))}
          told={(name, at) =>
            say("practice.point-at", {
              point: spotWords[name],
              x: Math.round(at.x),
              y: Math.round(at.y),
            })
          }
        />
      </Stack>
      <Stack $gap={4}>
        <PointList
          label={say("practice.points")}
          asked={photo.asked}
          spots={spots}
          next={next}
          onPick={(name) => {
            // By keys a point begins in the middle and is moved from there.
            if (!spots[name]) setSpots({ ...spots, [name]: { x: photo.width / 2, y: photo.height / 2 } });
            setPutting(name);
          }}
        />
        <Row>
          <Button isDisabled={reading.points.length < 2 || props.busy} onPress={() => props.onRate(reading)}>
            {say("practice.points-are-right")}
          </Button>
        </Row>
        <Small>{say("practice.points-you-cannot-see")}</Small>
      </Stack>
    </Columns>
  );
}
