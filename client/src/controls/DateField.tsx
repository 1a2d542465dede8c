import { parseDate, parseDateTime } from "@internationalized/date";
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  CalendarGridBody,
  CalendarGridHeader,
  CalendarHeaderCell,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  Group,
  Heading,
  I18nProvider,
  type DateValue,
  Popover,
} from "react-aria-components";
import styled from "styled-components";
import { clinicTime, dateLocale } from "../api/clinicTime";
import { FieldHint, FieldLabel, FieldWrong } from "./fields";
import { say } from "../words/say";

const Box = styled(Group)`
  display: flex;
  align-items: center;
  min-height: 48px;
  border: 2px solid ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  font-variant-numeric: tabular-nums;
  &[data-focus-within] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: 2px;
  }
  button {
    align-self: stretch;
    min-width: 48px;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
`;

const Parts = styled(DateInput)`
  flex: 1;
  display: flex;
  padding: 0 ${({ theme }) => theme.space(3)};
  white-space: pre;
`;

const Part = styled(DateSegment)`
  padding: ${({ theme }) => theme.space(2)} 1px;
  outline: none;
  &[data-placeholder] {
    color: ${({ theme }) => theme.colour.grey};
  }
  &[data-focused] {
    background: ${({ theme }) => theme.colour.ink};
    color: ${({ theme }) => theme.colour.sheet};
  }
`;

const Sheet = styled(Dialog)`
  padding: ${({ theme }) => theme.space(3)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }
  header button {
    min-width: 48px;
    min-height: 48px;
    border: 0;
    background: none;
    color: inherit;
    font: 600 1.25rem/1 ${({ theme }) => theme.font.text};
    cursor: pointer;
  }
  h2 {
    font-size: 1.0625rem;
    margin: 0;
  }
  th {
    padding: ${({ theme }) => theme.space(1)};
    font-size: 0.8125rem;
    color: ${({ theme }) => theme.colour.grey};
  }
`;

const Day = styled(CalendarCell)`
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border-radius: ${({ theme }) => theme.radius};
  cursor: pointer;
  &[data-outside-month] {
    visibility: hidden;
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.colour.wash};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.colour.ink};
    color: ${({ theme }) => theme.colour.sheet};
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
  }
`;

const weekStarts = {
  sunday: "sun",
  monday: "mon",
  tuesday: "tue",
  wednesday: "wed",
  thursday: "thu",
  friday: "fri",
  saturday: "sat",
} as const;

interface Props {
  label: string;
  hint?: string;
  error?: string;
  /** "2026-11-29", with a time "2026-11-29T09:30" on the clinic's wall; empty: none. */
  value: string;
  onChange: (value: string) => void;
}

/** A day, typed in the clinic's order or picked from a month that begins as its weeks do; one decades away (far) is only typed. */
export const DayField = (props: Props & { far?: boolean }) => (
  <Field
    {...props}
    day={isDay(props.value) ? parseDate(props.value) : null}
    onDay={(day) => props.onChange(day?.toString() ?? "")}
  />
);

/** A day and a time of day. */
export const MomentField = (props: Props) => (
  <Field
    {...props}
    timed
    day={props.value ? parseDateTime(props.value) : null}
    onDay={(day) => props.onChange(day?.toString().slice(0, 16) ?? "")}
  />
);

const isDay = (value: string) => /^\d{4}-\d{2}-\d{2}$/.test(value);

function Field(
  props: Props & {
    timed?: boolean;
    far?: boolean;
    day: DateValue | null;
    onDay: (day: DateValue | null) => void;
  },
) {
  return (
    <I18nProvider locale={dateLocale()}>
      <DatePicker<DateValue>
        value={props.day}
        onChange={props.onDay}
        granularity={props.timed ? "minute" : "day"}
        hourCycle={24}
        shouldForceLeadingZeros
        isInvalid={props.error !== undefined}
      >
        <FieldLabel>{props.label}</FieldLabel>
        <Box>
          <Parts>{(segment) => <Part segment={segment} />}</Parts>
          {!props.far && <Button aria-label={say("controls.open-the-month")}>▾</Button>}
        </Box>
        {props.hint && <FieldHint slot="description">{props.hint}</FieldHint>}
        <FieldWrong>{props.error}</FieldWrong>
        <Popover>
          <Sheet>
            <Calendar firstDayOfWeek={weekStarts[clinicTime().weekStart]}>
              <header>
                <Button slot="previous">‹</Button>
                <Heading />
                <Button slot="next">›</Button>
              </header>
              <CalendarGrid>
                <CalendarGridHeader>
                  {(day) => <CalendarHeaderCell>{day}</CalendarHeaderCell>}
                </CalendarGridHeader>
                <CalendarGridBody>{(date) => <Day date={date} />}</CalendarGridBody>
              </CalendarGrid>
            </Calendar>
          </Sheet>
        </Popover>
      </DatePicker>
    </I18nProvider>
  );
}
