import styled from "styled-components";

const Bar = styled.div<{ $tone: "sea" | "bark" }>`
  width: 150px;
  height: 14px;
  background: ${({ theme }) => theme.colour.wash};
  ${({ theme }) => theme.narrow} {
    width: 60px;
  }
  i {
    display: block;
    height: 100%;
    forced-color-adjust: none;
    background: ${({ theme, $tone }) => theme.colour[$tone]};
  }
`;

/** A share, 0 to 1, beside the words that say it. */
export const ShareBar = (props: { share: number; tone: "sea" | "bark" }) => (
  <Bar $tone={props.tone} aria-hidden>
    <i style={{ width: `${100 * Math.min(1, props.share)}%` }} />
  </Bar>
);
