import { useState } from "react";
import styled from "styled-components";
import { useFigureSheet, useLibrary } from "../api/queries";
import type { Ladder, Side } from "../api/types";
import { Choice } from "../controls/fields";
import { Page, ProblemNote, Row } from "../controls/layout";
import { FigureView } from "../figure/FigureView";
import { stands } from "./LibraryPage";
import { say } from "../words/say";

const Sheet = styled.ul<{ $size: number }>`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(${({ $size }) => $size}px, 1fr));
  gap: ${({ theme }) => theme.space(3)};
  margin: ${({ theme }) => theme.space(2)} 0 ${({ theme }) => theme.space(6)};
  li {
    content-visibility: auto;
    contain-intrinsic-size: ${({ $size }) => `${$size}px ${$size * 0.8}px`};
  }
  p {
    font-size: 0.875rem;
    line-height: 1.2;
  }
`;

const sizes = [96, 320] as const;

/** Every rung of the library in one look, small and large: what one sees here is what the client is given. */
export function ContactSheetPage() {
  const { data: library } = useLibrary();
  const [side, setSide] = useState<Side>("right");
  const [size, setSize] = useState<(typeof sizes)[number]>(96);
  const { data: figures, error } = useFigureSheet(side);
  return (
    <Page>
      <Row $between style={{ marginBottom: 16 }}>
        <h1>{say("library.every-rung-drawn")}</h1>
        <Row $gap={6}>
          <Choice
            label={say("library.side-of-the-task")}
            value={side}
            onChange={setSide}
            options={[
              { value: "left", label: say("library.left") },
              { value: "right", label: say("library.right") },
            ]}
          />
          <Choice
            label={say("library.size")}
            value={String(size)}
            onChange={(value) => setSize(value === "320" ? 320 : 96)}
            options={sizes.map((s) => ({ value: String(s), label: say("library.s-px", { s }) }))}
          />
        </Row>
      </Row>
      <ProblemNote error={error} />
      {figures &&
        library?.ladders
          .filter(stands)
          .map((ladder) => (
            <OneLadder
              key={ladder.id}
              ladder={ladder}
              size={size}
              figureOf={(id) => figures.find((f) => f.rungId === id)?.figure}
            />
          ))}
    </Page>
  );
}

function OneLadder(props: {
  ladder: Ladder;
  size: number;
  figureOf: (id: string) => Parameters<typeof FigureView>[0]["figure"] | undefined;
}) {
  return (
    <section aria-label={props.ladder.name}>
      <h2>{props.ladder.name}</h2>
      <Sheet $size={props.size}>
        {props.ladder.rungs.map((rung) => {
          const figure = props.figureOf(rung.id);
          return (
            <li key={rung.id}>
              <div style={{ width: props.size, height: props.size * 0.62 }}>
                {figure && <FigureView figure={figure} />}
              </div>
              <p>{rung.name}</p>
            </li>
          );
        })}
      </Sheet>
    </section>
  );
}
