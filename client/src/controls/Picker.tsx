import {
  Button,
  ComboBox,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
} from "react-aria-components";
import styled from "styled-components";
import { FieldLabel } from "./fields";
import { HiddenVisually } from "./layout";

const Opener = styled(Button)<{ $dashed?: boolean }>`
  width: 100%;
  min-height: 48px;
  padding: 0 ${({ theme }) => theme.space(3)};
  border: 2px ${({ $dashed }) => ($dashed ? "dashed" : "solid")} ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  color: inherit;
  font: inherit;
  text-align: start;
  cursor: pointer;
  &::after {
    content: " ▾" / "";
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: 2px;
  }
`;

const List = styled(ListBox)`
  background: ${({ theme }) => theme.colour.sheet};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  padding: ${({ theme }) => theme.space(1)};
  max-height: 320px;
  overflow-y: auto;
  div {
    padding: ${({ theme }) => theme.space(3)};
    cursor: pointer;
  }
  [data-focused] {
    background: ${({ theme }) => theme.colour.wash};
  }
`;

/** One of many: a list that opens. */
export function Picker<T extends string>(props: {
  label: string;
  hideLabel?: boolean;
  /** A shorter label for the eye, where the label says of what. */
  shown?: string;
  /** Shown while nothing is picked. */
  placeholder?: string;
  /** None: what is picked is done and forgotten. */
  value?: T | null;
  onPick: (value: T) => void;
  options: { value: T; label: string }[];
  /** Not of the room: something of a simulation. */
  dashed?: boolean;
}) {
  return (
    <Select
      placeholder={props.placeholder}
      {...(props.value === undefined ? {} : { value: props.value })}
      onChange={(key) => key !== null && props.onPick(String(key) as T)}
    >
      {props.hideLabel ? (
        <Label>
          <HiddenVisually>{props.label}</HiddenVisually>
        </Label>
      ) : (
        <FieldLabel>
          {props.shown ?? props.label}
          {props.shown && <HiddenVisually>{props.label.replace(props.shown, "")}</HiddenVisually>}
        </FieldLabel>
      )}
      <Opener $dashed={props.dashed}>
        <SelectValue />
      </Opener>
      <Popover>
        <List>
          {props.options.map((o) => (
            <ListBoxItem key={o.value} id={o.value} textValue={o.label}>
              {o.label}
            </ListBoxItem>
          ))}
        </List>
      </Popover>
    </Select>
  );
}

const Sought = styled.div`
  display: flex;
  border: 2px solid ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  &:focus-within {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: 2px;
  }
  input {
    flex: 1;
    min-width: 0;
    min-height: 44px;
    padding: 0 ${({ theme }) => theme.space(3)};
  }
  button {
    min-width: 44px;
    cursor: pointer;
  }
  input,
  button {
    border: 0;
    outline: none;
    background: none;
    color: inherit;
    font: inherit;
  }
`;

/** One of very many: a part of its name finds it. */
export function SearchPicker(props: {
  label: string;
  value: string;
  onPick: (value: string) => void;
  options: { value: string; label: string }[];
}) {
  return (
    <ComboBox
      value={props.value}
      onChange={(key) => key !== null && props.onPick(String(key))}
      menuTrigger="focus"
    >
      <FieldLabel>{props.label}</FieldLabel>
      <Sought>
        <Input />
        <Button>▾</Button>
      </Sought>
      <Popover style={{ minWidth: "var(--trigger-width)" }}>
        <List>
          {props.options.map((o) => (
            <ListBoxItem key={o.value} id={o.value} textValue={o.label}>
              {o.label}
            </ListBoxItem>
          ))}
        </List>
      </Popover>
    </ComboBox>
  );
}
