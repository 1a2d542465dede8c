import type { ReactNode } from "react";
import {
  Checkbox as AriaCheckbox,
  FieldError,
  Group,
  Input,
  Label,
  NumberField as AriaNumberField,
  Button as AriaButton,
  Radio,
  RadioGroup,
  Text,
  TextArea,
  TextField as AriaTextField,
} from "react-aria-components";
import styled, { css } from "styled-components";
import { say } from "../words/say";

const box = css`
  width: 100%;
  min-height: 48px;
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)};
  border: 2px solid ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  color: ${({ theme }) => theme.colour.ink};
  font: inherit;
`;

export const FieldLabel = styled(Label)`
  display: block;
  margin-bottom: ${({ theme }) => theme.space(1)};
  font-weight: 600;
  font-size: 0.9375rem;
`;

export const FieldHint = styled(Text)`
  display: block;
  margin-top: ${({ theme }) => theme.space(1)};
  color: ${({ theme }) => theme.colour.grey};
  font-size: 0.9375rem;
`;

export const FieldWrong = styled(FieldError)`
  display: block;
  margin-top: ${({ theme }) => theme.space(1)};
  color: ${({ theme }) => theme.colour.clay};
  font-weight: 600;
  font-size: 0.9375rem;
`;

const StyledInput = styled(Input)`
  ${box}
`;
const StyledArea = styled(TextArea)`
  ${box}
  min-height: ${({ rows }) => (rows ? 48 : 84)}px;
`;

interface Common {
  label: string;
  hint?: string;
  error?: string;
}

export function TextField(
  props: Common & {
    value: string;
    onChange: (value: string) => void;
    type?: string;
    long?: boolean;
    /** Lines of a long one; four where nothing is said. */
    rows?: number;
    autoComplete?: string;
    inputMode?: "numeric";
    /** In a dialog that asks for nothing else. */
    focused?: boolean;
  },
) {
  return (
    <AriaTextField
      value={props.value}
      onChange={props.onChange}
      type={props.type}
      // What is typed about a client is not for the browser to remember.
      autoComplete={props.autoComplete ?? "off"}
      // eslint-disable-next-line jsx-a11y/no-autofocus -- a dialog takes the focus anyway; its one field is where it belongs
      autoFocus={props.focused}
      isInvalid={props.error !== undefined}
    >
      <FieldLabel>{props.label}</FieldLabel>
      {props.long ? <StyledArea rows={props.rows} /> : <StyledInput inputMode={props.inputMode} />}
      {props.hint && <FieldHint slot="description">{props.hint}</FieldHint>}
      <FieldWrong>{props.error}</FieldWrong>
    </AriaTextField>
  );
}

const Stepper = styled(Group)<{ $small?: boolean }>`
  display: flex;
  border: 2px solid ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  width: ${({ $small }) => ($small ? "100px" : "100%")};
  input {
    flex: 1;
    min-width: 0;
    min-height: ${({ $small }) => ($small ? "40px" : "44px")};
    border: 0;
    padding: 0 ${({ theme, $small }) => theme.space($small ? 0 : 3)};
    text-align: ${({ $small }) => ($small ? "center" : "left")};
    background: none;
    color: inherit;
    font: inherit;
    font-variant-numeric: tabular-nums;
  }
  button {
    width: 32px;
    border: 0;
    background: none;
    color: inherit;
    font: 600 1.25rem/1 ${({ theme }) => theme.font.text};
    cursor: pointer;
  }
`;

export function NumberField(
  props: Common & {
    value: number | null;
    onChange: (value: number | null) => void;
    min?: number;
    max?: number;
    step?: number;
    small?: boolean;
    hideLabel?: boolean;
  },
) {
  return (
    <AriaNumberField
      value={props.value ?? NaN}
      onChange={(v) => props.onChange(Number.isNaN(v) ? null : v)}
      minValue={props.min}
      maxValue={props.max}
      step={props.step}
      isInvalid={props.error !== undefined}
      aria-label={props.hideLabel ? props.label : undefined}
    >
      {!props.hideLabel && <FieldLabel>{props.label}</FieldLabel>}
      <Stepper $small={props.small}>
        <AriaButton slot="decrement">−</AriaButton>
        <Input />
        <AriaButton slot="increment">+</AriaButton>
      </Stepper>
      {props.hint && <FieldHint slot="description">{props.hint}</FieldHint>}
      <FieldWrong>{props.error}</FieldWrong>
    </AriaNumberField>
  );
}

const Choices = styled.div<{ $tight?: boolean }>`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme, $tight }) => theme.space($tight ? 1 : 2)};
`;

/** A choice as a chip; what is chosen is ink, also where colours are forced. */
const chip = css`
  display: flex;
  align-items: center;
  justify-content: center;
  border: 2px solid ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  cursor: pointer;
  &[data-selected] {
    background: ${({ theme }) => theme.colour.ink};
    border-color: ${({ theme }) => theme.colour.ink};
    color: ${({ theme }) => theme.colour.sheet};
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: 2px;
  }
  @media (forced-colors: active) {
    &[data-selected] {
      forced-color-adjust: none;
      background: Highlight;
      border-color: Highlight;
      color: HighlightText;
    }
  }
`;

const Chip = styled(Radio)<{ $tight?: boolean; $snug?: boolean }>`
  ${chip}
  min-height: 48px;
  min-width: ${({ $tight }) => ($tight ? "44px" : "48px")};
  padding: 0 ${({ theme, $tight, $snug }) => theme.space($tight ? 1 : $snug ? 2 : 4)};
  font-variant-numeric: tabular-nums;
  &[data-selected] {
    font-weight: 600;
  }
`;

export interface Option<T extends string> {
  value: T;
  label: ReactNode;
}

const Unasked = styled(AriaButton)`
  min-height: 48px;
  border: 0;
  padding: 0 ${({ theme }) => theme.space(2)};
  background: none;
  color: ${({ theme }) => theme.colour.ink};
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
`;

/** @param props.onClear takes the answer back to "not asked"; without it an answer stands once given. */
export function Choice<T extends string>(
  props: Common & {
    value: T | null;
    onChange: (value: T) => void;
    options: Option<T>[];
    /** For numbers. */
    tight?: boolean;
    /** Words that should stand in one row. */
    snug?: boolean;
    onClear?: () => void;
  },
) {
  return (
    <RadioGroup
      value={props.value ?? ""}
      onChange={(v) => props.onChange(v as T)}
      orientation="horizontal"
      isInvalid={props.error !== undefined}
    >
      <FieldLabel>{props.label}</FieldLabel>
      <Choices $tight={props.tight}>
        {props.options.map((o) => (
          <Chip key={o.value} value={o.value} $tight={props.tight} $snug={props.snug}>
            {o.label}
          </Chip>
        ))}
        {props.onClear && props.value !== null && (
          <Unasked
            aria-label={say("controls.label-not-asked", { label: props.label })}
            onPress={props.onClear}
          >
            {say("controls.not-asked")}
          </Unasked>
        )}
      </Choices>
      {props.hint && <FieldHint slot="description">{props.hint}</FieldHint>}
      <FieldWrong>{props.error}</FieldWrong>
    </RadioGroup>
  );
}

const scale = Array.from({ length: 11 }, (_, i) => ({ value: String(i), label: i }));

/** 0 to 10, one tap. Used for pain and for effort. */
export function Scale(
  props: Common & { value: number | null; onChange: (value: number) => void; onClear?: () => void },
) {
  return (
    <Choice
      {...props}
      tight
      value={props.value === null ? null : String(props.value)}
      onChange={(v) => props.onChange(Number(v))}
      options={scale}
    />
  );
}

const Tick = styled(AriaCheckbox)`
  display: flex;
  align-items: flex-start;
  gap: ${({ theme }) => theme.space(3)};
  min-height: 44px;
  padding: ${({ theme }) => theme.space(2)} 0;
  cursor: pointer;
  .box {
    flex: none;
    width: 26px;
    height: 26px;
    border: 2px solid ${({ theme }) => theme.colour.slate};
    border-radius: 3px;
    background: ${({ theme }) => theme.colour.sheet};
    text-align: center;
    font: 700 1.1875rem/22px ${({ theme }) => theme.font.text};
    color: transparent;
  }
  &[data-selected] .box {
    background: ${({ theme }) => theme.colour.ink};
    border-color: ${({ theme }) => theme.colour.ink};
    color: ${({ theme }) => theme.colour.sheet};
  }
  &[data-focus-visible] .box {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: 2px;
  }
`;

export function Checkbox(props: {
  children: ReactNode;
  selected: boolean;
  onChange: (selected: boolean) => void;
}) {
  return (
    <Tick isSelected={props.selected} onChange={props.onChange}>
      <span className="box" aria-hidden>
        ✓
      </span>
      <span>{props.children}</span>
    </Tick>
  );
}

const TickedChip = styled(AriaCheckbox)`
  ${chip}
  min-height: 44px;
  padding: 0 ${({ theme }) => theme.space(2)};
  font-size: 1rem;
`;

/** Several of a list, a chip each: for short names, of which many stand in one look. */
export function Ticks(props: {
  label: string;
  hideLabel?: boolean;
  ticked: readonly string[];
  onChange: (ticked: string[]) => void;
  options: { id: string; name: string; hint?: string }[];
}) {
  const { ticked } = props;
  return (
    <div role="group" aria-label={props.label}>
      {!props.hideLabel && <FieldLabel as="span">{props.label}</FieldLabel>}
      <Choices $tight>
        {props.options.map((o) => (
          <TickedChip
            key={o.id}
            isSelected={ticked.includes(o.id)}
            onChange={(on) => props.onChange(on ? [...ticked, o.id] : ticked.filter((id) => id !== o.id))}
            aria-description={o.hint}
          >
            {o.name}
          </TickedChip>
        ))}
      </Choices>
    </div>
  );
}
