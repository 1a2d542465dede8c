import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Input, Label, TextField } from "react-aria-components";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import type { HomeDay, HomeLogView, HomeRow } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Quiet } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { say } from "../words/say";

const Cell = styled(Input)<{ $wide?: boolean }>`
  width: ${({ $wide }) => ($wide ? "170px" : "58px")};
  min-height: 44px;
  padding: 0 6px;
  border: 1px solid ${({ theme }) => theme.colour.slate};
  border-radius: 3px;
  background: ${({ theme }) => theme.colour.sheet};
  color: inherit;
  font: inherit;
  text-align: ${({ $wide }) => ($wide ? "start" : "center")};
  &:disabled {
    border-color: transparent;
    background: none;
  }
`;

type Columns = HomeLogView["columns"];

/** What stands in the cells while they are typed in: text, so that nothing is lost by being half typed. */
export interface Typed {
  reps: Record<string, string>;
  pain: string;
  nextMorning: string;
  remark: string;
}

const cellKey = (c: { planItemId: string; side: string }) => `${c.planItemId} ${c.side}`;

export const typedOf = (row: HomeRow): Typed => ({
  reps: Object.fromEntries((row.log?.done ?? []).map((d) => [cellKey(d), String(d.reps)])),
  pain: row.log?.pain?.toString() ?? "",
  nextMorning: row.log?.nextMorning?.toString() ?? "",
  remark: row.log?.remark ?? "",
});

const whole = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : null);

/** The day as it would be stored, and which cells are no whole numbers. */
export function dayOf(typed: Typed, row: HomeRow, columns: Columns): { day: HomeDay; wrong: string[] } {
  const wrong: string[] = [];
  const number = (text: string, name: string) => {
    if (text.trim() !== "" && whole(text) === null) wrong.push(name);
    return text.trim() === "" ? null : whole(text);
  };
  const done = columns.flatMap((c) => {
    const reps = number(typed.reps[cellKey(c)] ?? "", c.name);
    return reps === null ? [] : [{ planItemId: c.planItemId, side: c.side, reps }];
  });
  return {
    day: {
      day: row.day,
      done,
      pain: number(typed.pain, say("visits.pain-cell")),
      nextMorning: number(typed.nextMorning, say("visits.next-morning")),
      remark: typed.remark.trim() || null,
    },
    wrong,
  };
}

/** Exercises of which more was done than the day's plan: asked about before it is stored. */
export const overPlanned = (day: HomeDay, columns: Columns) =>
  columns
    .filter((c) => day.done.some((d) => cellKey(d) === cellKey(c) && d.reps > c.perDay))
    .map((c) => (c.side === "both" ? c.name : `${c.name}, ${c.side}`));

/** One day of the home log. Enter goes down a column; leaving the row stores it. */
export function HomeLogRow(props: {
  row: HomeRow;
  columns: Columns;
  episodeId: string;
  onStored: () => void;
}) {
  const { row, columns } = props;
  const [typed, setTyped] = useState(() => typedOf(row));
  const line = useRef<HTMLTableRowElement>(null);
  const store = useMutation({
    mutationFn: (day: HomeDay) =>
      got(
        api.PUT("/api/episodes/{id}/home-log", {
          params: { path: { id: props.episodeId } },
          body: { log: day, version: row.version },
        }),
      ),
    onSuccess: props.onStored,
  });
  const { day, wrong } = dayOf(typed, row, columns);
  const over = overPlanned(day, columns);
  const [sure, setSure] = useState(false);
  const changed = JSON.stringify(typed) !== JSON.stringify(typedOf(row));
  const left = (e: React.FocusEvent) => {
    if (line.current?.contains(e.relatedTarget as Node | null)) return;
    if (changed && wrong.length === 0 && (over.length === 0 || sure)) store.mutate(day);
  };
  const planned = columns.filter((c) => row.planned.includes(c.planItemId));
  const fill = (reps: (c: Columns[number]) => number) => {
    const filled = { ...typed, reps: Object.fromEntries(planned.map((c) => [cellKey(c), String(reps(c))])) };
    setTyped(filled);
    store.mutate(dayOf(filled, row, columns).day);
  };
  const words = dayWords(row.day);
  return (
    <tr ref={line} onBlur={left} onKeyDown={downTheColumn}>
      <th scope="row" style={{ whiteSpace: "nowrap" }}>
        {words}
        {row.planned.length === 0 && <Quiet> {say("visits.rest")}</Quiet>}
        {row.reported && (
          <>
            <br />
            <Quiet style={{ fontSize: "0.875rem" }}>{say("visits.reported-by-client")}</Quiet>
          </>
        )}
      </th>
      <td style={{ whiteSpace: "nowrap" }}>
        {planned.length > 0 && !row.log && (
          <>
            <Button $quiet $small onPress={() => fill((c) => c.perDay)}>
              {say("visits.as-planned")}
            </Button>{" "}
            <Button $quiet $small onPress={() => fill(() => 0)}>
              {say("visits.nothing")}
            </Button>
          </>
        )}
      </td>
      {columns.map((c) => (
        <td key={cellKey(c)}>
          <Field
            label={`${c.name}${c.side === "both" ? "" : `, ${c.side}`}, ${words}`}
            value={typed.reps[cellKey(c)] ?? ""}
            onChange={(text) => setTyped({ ...typed, reps: { ...typed.reps, [cellKey(c)]: text } })}
          />
        </td>
      ))}
      <td>
        <Field
          label={say("visits.pain-words", { words })}
          value={typed.pain}
          onChange={(pain) => setTyped({ ...typed, pain })}
        />
      </td>
      <td>
        <Field
          label={say("visits.pain-next-morning-words", { words })}
          value={typed.nextMorning}
          onChange={(nextMorning) => setTyped({ ...typed, nextMorning })}
        />
      </td>
      <td>
        <Field
          wide
          label={say("visits.remark-words", { words })}
          value={typed.remark}
          onChange={(remark) => setTyped({ ...typed, remark })}
        />
      </td>
      <td>
        <span role="status">
          {wrong.length > 0 && say("visits.not-a-whole-number-wrong", { wrong: wrong.join(", ") })}
          {changed && wrong.length === 0 && over.length > 0 && !sure && (
            <>
              {say("visits.more-than-planned-over-not", { over: over.join(", ") })}{" "}
              <Button
                $quiet
                $small
                onPress={() => {
                  setSure(true);
                  store.mutate(day);
                }}
              >
                {say("visits.it-was-that-much")}
              </Button>
            </>
          )}
          {store.error instanceof ProblemError && store.error.message}
        </span>
      </td>
    </tr>
  );
}

function Field(props: { label: string; value: string; onChange: (text: string) => void; wide?: boolean }) {
  return (
    <TextField value={props.value} onChange={props.onChange}>
      <Label>
        <HiddenVisually>{props.label}</HiddenVisually>
      </Label>
      <Cell $wide={props.wide} inputMode={props.wide ? "text" : "numeric"} maxLength={props.wide ? 500 : 3} />
    </TextField>
  );
}

/** Enter and the arrow keys go to the same cell of the next or last row. */
function downTheColumn(e: React.KeyboardEvent<HTMLTableRowElement>) {
  const by = e.key === "Enter" || e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
  if (by === 0 || !(e.target instanceof HTMLInputElement)) return;
  const cell = e.target.closest("td");
  const row = e.currentTarget;
  const other = by > 0 ? row.nextElementSibling : row.previousElementSibling;
  const index = cell ? [...row.children].indexOf(cell) : -1;
  const target = other?.children[index]?.querySelector("input");
  if (!target) return;
  e.preventDefault();
  target.focus();
  target.select();
}
