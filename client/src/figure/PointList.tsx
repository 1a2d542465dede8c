import styled from "styled-components";
import { Button } from "../controls/Button";
import { spotWords, type SpotName, type Spots } from "./spots";

const Places = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(1)};
`;

/** Points of a photograph, which of them are put, and which comes next; others may follow as list items. */
export function PointList(props: {
  label: string;
  asked: SpotName[];
  spots: Spots;
  next: SpotName | null;
  onPick: (name: SpotName) => void;
  children?: React.ReactNode;
}) {
  return (
    <Places aria-label={props.label}>
      {props.asked.map((name) => (
        <li key={name}>
          <Button $small $quiet={props.next !== name} onPress={() => props.onPick(name)}>
            {props.spots[name] ? "✓ " : ""}
            {spotWords[name]}
          </Button>
        </li>
      ))}
      {props.children}
    </Places>
  );
}
