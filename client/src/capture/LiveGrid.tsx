import styled from "styled-components";

/**
 * The body between two thumbs, all of it in the window: beside it where it is wide, above them on a tablet held upright or a
 * phone. What is over it is the line of the frame.
 */
export const Live = styled.div<{ $thumb: "left" | "right" }>`
  display: grid;
  grid-template-columns: ${({ $thumb }) => ($thumb === "left" ? "212px minmax(0, 1fr) 228px" : "228px minmax(0, 1fr) 212px")};
  gap: ${({ theme }) => theme.space(5)};
  height: calc(100dvh - 104px);
  min-height: 500px;
  /* The stage ends with the window, also where the controls need more. */
  grid-template-rows: minmax(0, 1fr);
  .controls {
    order: ${({ $thumb }) => ($thumb === "left" ? 0 : 2)};
  }
  .stage {
    order: 1;
  }
  .panel {
    order: ${({ $thumb }) => ($thumb === "left" ? 2 : 0)};
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr);
    grid-auto-rows: auto;
    grid-template-areas: ${({ $thumb }) => areas($thumb === "left" ? doing : ending, $thumb === "left" ? ending : doing)};
    gap: ${({ theme }) => theme.space(3)};
    .controls,
    .panel {
      display: contents;
    }
    .panel.instead {
      display: block;
      grid-column: 1 / -1;
    }
    .stage {
      grid-area: stage;
    }
    .side {
      grid-area: side;
    }
    .main {
      grid-area: main;
    }
    .cue {
      grid-area: cue;
    }
    .all {
      grid-area: all;
    }
    .undo {
      grid-area: undo;
    }
    .watched {
      grid-area: watched;
    }
    .counts {
      grid-area: counts;
    }
    .pain {
      grid-area: pain;
    }
    .ends {
      grid-area: ends;
    }
    .note {
      grid-area: note;
    }
    .cue > button {
      width: 100%;
    }
    .undo button {
      padding: 0;
    }
    /* Keys are for the desk; "?" still shows them. */
    .keys {
      display: none;
    }
  }
  @media (max-width: 56.25em) and (max-height: 900px) {
    height: auto;
    min-height: calc(100dvh - 104px);
    grid-template-rows: minmax(440px, 1fr);
  }
`;

/** What lies under which thumb on a tablet held upright, row by row. */
const doing = ["side", "undo", "cue", "all", "counts", "counts"];
const ending = ["main", "pain", "ends", "ends", "ends", "note"];

const areas = (left: string[], right: string[]) =>
  [`"stage stage"`, ...left.map((name, i) => `"${name} ${right[i]}"`), `"watched watched"`].join(" ");

export const Centre = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-auto-rows: auto;
  gap: ${({ theme }) => theme.space(3)};
  min-width: 0;
  @media (max-width: 37.5em) {
    gap: ${({ theme }) => theme.space(2)};
    .edges {
      display: none;
    }
  }
`;

/** Counts, pain and the end of the trial. */
export const Panel = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(4)};
  align-content: start;
`;

export const Controls = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(3)};
  align-content: start;
  grid-auto-rows: min-content;
  .keys button,
  .cue > button {
    width: 100%;
  }
`;
