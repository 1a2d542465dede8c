import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { EpisodeView } from "../api/types";
import { useQuiet } from "./quiet";
import { StationMenu } from "./StationMenu";
import { SyncMark } from "./SyncMark";
import { Tag } from "./EpisodeStrip";
import { useVisit } from "./useVisit";
import { say } from "../words/say";

const Line = styled.header`
  display: flex;
  align-items: center;
  gap: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(4)};
  min-height: 56px;
  margin-bottom: ${({ theme }) => theme.space(3)};
  overflow: hidden;
  p {
    font: 700 1.125rem/1.2 ${({ theme }) => theme.font.display};
    white-space: nowrap;
  }
  .tags {
    display: flex;
    overflow: hidden;
    white-space: nowrap;
  }
  h1 {
    min-width: 0;
    margin: 0;
    flex: 1 1 auto;
    font-size: 1.125rem;
    line-height: 1.2;
    outline: none;
  }
  h1 span {
    color: ${({ theme }) => theme.colour.grey};
    font: 400 0.9375rem/1.2 ${({ theme }) => theme.font.text};
  }
  @media (max-width: 68.75em) {
    .tags {
      display: none;
    }
  }
  @media (max-width: 37.5em) {
    p,
    h1 span {
      display: none;
    }
  }
`;

/** All that stands over a live trial: who, what, whether it is stored, and the way out. */
export function LiveHead(props: { title: string; asked: React.ReactNode }) {
  const { episode, visitId } = useVisit();
  useQuiet();
  const title = useRef<HTMLHeadingElement>(null);
  // The button that started it is gone: keys and screen readers go on here.
  useEffect(() => title.current?.focus(), []);
  return (
    <Line>
      {episode && <Who episode={episode} />}
      <h1 ref={title} tabIndex={-1}>
        {props.title} <span>{props.asked}</span>
      </h1>
      <SyncMark />
      {episode && (
        <StationMenu
          base={`/episodes/${episode.id}/visits/${visitId}`}
          here={null}
          words={say("frame.leave")}
          live
        />
      )}
    </Line>
  );
}

const Who = ({ episode }: { episode: EpisodeView }) => (
  <>
    <p>{episode.intake.name}</p>
    <span className="tags">
      {episode.tags.slice(0, 2).map((tag) => (
        <Tag key={tag.id} $lapsed={tag.lapsed}>
          {tag.words}
        </Tag>
      ))}
    </span>
  </>
);
