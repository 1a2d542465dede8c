import { useState } from "react";
import styled from "styled-components";
import type { BarePhoto, PhotoReading, PhotoSpot } from "../api/types";
import { Button } from "../controls/Button";
import { Columns, Row, Small, Stack } from "../controls/layout";
import { PhotoStage } from "../figure/PhotoStage";
import { nextOf, readingOf, spotWords, type SpotName, type Spots } from "../figure/spots";
import { say } from "../words/say";

const Places = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(1)};
`;

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
        <Places aria-label={say("practice.points")}>
          {photo.asked.map((name) => (
            <li key={name}>
              <Button
                $small
                $quiet={next !== name}
                onPress={() => {
                  // By keys a point begins in the middle and is moved from there.
                  if (!spots[name])
                    setSpots({ ...spots, [name]: { x: photo.width / 2, y: photo.height / 2 } });
                  setPutting(name);
                }}
              >
                {spots[name] ? "✓ " : ""}
                {spotWords[name]}
              </Button>
            </li>
          ))}
        </Places>
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
