import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { NumberField } from "../controls/fields";
import { say } from "../words/say";

const Shown = styled(Button)`
  min-width: 32px;
  min-height: 34px;
  padding: 0 3px;
  border: 0;
  background: none;
  color: inherit;
  font: 600 1.125rem/1 ${({ theme }) => theme.font.text};
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  touch-action: manipulation;
  text-decoration: underline dashed ${({ theme }) => theme.colour.slate} 1px;
  text-underline-offset: 5px;
  &[data-hovered],
  &[aria-expanded="true"] {
    background: ${({ theme }) => theme.colour.wash};
  }
`;

const Leaf = styled(Popover)`
  padding: ${({ theme }) => theme.space(3)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.paper};
  width: 190px;
  button {
    min-width: 48px;
    min-height: 48px;
  }
`;

/** A number of a dose among its words: a tap opens it, to step or to type. */
export function DoseNumber(props: {
  label: string;
  value: number;
  unit?: string;
  min: number;
  max: number;
  step?: number;
  onChange: (value: number) => void;
}) {
  return (
    <DialogTrigger>
      <Shown aria-label={say("planning.number-now", { label: props.label, value: props.value })}>
        {props.value}
        {props.unit}
      </Shown>
      <Leaf placement="bottom">
        <Dialog aria-label={props.label}>
          <NumberField
            label={props.label}
            value={props.value}
            min={props.min}
            max={props.max}
            step={props.step}
            onChange={(v) => v !== null && v !== props.value && props.onChange(v)}
          />
        </Dialog>
      </Leaf>
    </DialogTrigger>
  );
}
