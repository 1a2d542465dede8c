import { Label, Slider as AriaSlider, SliderOutput, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";

const Whole = styled(AriaSlider)<{ $inline?: boolean }>`
  display: grid;
  grid-template-columns: ${({ $inline }) => ($inline ? "auto minmax(120px, 1fr) auto" : "1fr auto")};
  align-items: center;
  column-gap: ${({ theme }) => theme.space(4)};
  > div {
    grid-column: ${({ $inline }) => ($inline ? "2" : "1 / -1")};
    grid-row: ${({ $inline }) => ($inline ? "1" : "2")};
  }
  font-size: 1rem;
  label {
    font-weight: 600;
    font-size: 0.9375rem;
  }
  output {
    font-variant-numeric: tabular-nums;
  }
`;

const Track = styled(SliderTrack)`
  height: 44px;
  &::before {
    content: "";
    position: absolute;
    top: 20px;
    inset-inline-start: 0;
    inset-inline-end: 0;
    height: 4px;
    background: ${({ theme }) => theme.colour.sand};
  }
`;

const Thumb = styled(SliderThumb)`
  top: 22px;
  width: 30px;
  height: 30px;
  border: 3px solid ${({ theme }) => theme.colour.paper};
  border-radius: 50%;
  background: ${({ theme }) => theme.colour.ink};
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
  }
`;

export function Slider(props: {
  label: string;
  value: number;
  onChange: (value: number) => void;
  min: number;
  max: number;
  step: number;
  /** The value in words. */
  words: string;
  /** All in one line. */
  inline?: boolean;
}) {
  return (
    <Whole
      $inline={props.inline}
      value={props.value}
      onChange={(v) => props.onChange(v as number)}
      minValue={props.min}
      maxValue={props.max}
      step={props.step}
    >
      <Label>{props.label}</Label>
      <SliderOutput>{props.words}</SliderOutput>
      <Track>
        <Thumb />
      </Track>
    </Whole>
  );
}
