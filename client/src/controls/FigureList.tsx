import styled from "styled-components";

const List = styled.dl<{ $small: boolean }>`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: ${({ theme }) => theme.space(4)};
  margin: 0;
  div {
    display: flex;
    flex-direction: column-reverse;
    justify-content: flex-end;
    border-top: 3px solid ${({ theme }) => theme.colour.ink};
    padding-top: ${({ theme }) => theme.space(2)};
  }
  dd {
    margin: 0;
    font: 700 ${({ $small }) => ($small ? "1.375rem" : "2.125rem")} / 1.1 ${({ theme }) => theme.font.display};
    font-variant-numeric: tabular-nums;
  }
  dt {
    color: ${({ theme }) => theme.colour.grey};
    font-size: 0.9375rem;
  }
`;

/** A few figures, each large with what it counts beside it. */
export const FigureList = (props: { figures: [what: string, value: string][]; small?: boolean }) => (
  <List $small={props.small === true}>
    {props.figures.map(([what, value]) => (
      <div key={what}>
        <dt>{what}</dt>
        <dd>{value}</dd>
      </div>
    ))}
  </List>
);
