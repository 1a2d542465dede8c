import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Disclosure, DisclosurePanel } from "react-aria-components";
import styled from "styled-components";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { HomeDay, HomeLogView, HomeRow, Library } from "../api/types";
import { Button } from "../controls/Button";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { dayWords } from "../api/clinicTime";
import { HomeFile } from "./HomeFile";
import { HomeLogRow } from "./HomeLogRow";
import { say } from "../words/say";

const Scroll = styled.div`
  /* What only screen readers hear is placed within it and scrolls with it. */
  position: relative;
  overflow: auto;
  max-height: 46dvh;
  table {
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  th {
    padding: ${({ theme }) => theme.space(1)} ${({ theme }) => theme.space(2)};
    font-weight: 500;
    font-size: 0.9375rem;
    text-align: start;
    vertical-align: bottom;
    max-width: 130px;
  }
  tbody th {
    vertical-align: middle;
  }
  tbody td {
    padding: 2px ${({ theme }) => theme.space(1)};
    border-top: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

export const useHomeLog = (visitId: string) =>
  useQuery({
    queryKey: keys.homeLog(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/home-log", { params: { path: { visitId } } })),
    retry: false,
  });

/** What the client wrote down at home since the visit before; days by exercises, to be typed or tapped in quickly. */
export function HomeLog(props: { episodeId: string; visitId: string; library: Library; folded?: boolean }) {
  const { data } = useHomeLog(props.visitId);
  if (!data || data.rows.length === 0) return null;
  const written = data.rows.filter((r) => r.log).length;
  if (!props.folded) return <Grid {...props} log={data} />;
  return (
    <Disclosure>
      <Button $quiet $small slot="trigger">
        {say("visits.home-log-written", {
          written:
            written === 0
              ? say("visits.nothing-written-yet")
              : say("visits.written-of-rows-days", { written, rows: data.rows.length }),
        })}
      </Button>
      <DisclosurePanel>
        <Grid {...props} log={data} />
      </DisclosurePanel>
    </Disclosure>
  );
}

function Grid(props: { episodeId: string; visitId: string; library: Library; log: HomeLogView }) {
  const { log, episodeId, visitId } = props;
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: keys.visit(visitId) });
  const open = log.rows.filter((r) => !r.log && r.planned.length > 0);
  const [asking, setAsking] = useState(false);
  const [filled, setFilled] = useState<HomeRow[]>([]);
  const put = async (row: HomeRow, done: HomeDay["done"], version: number) =>
    got(
      api.PUT("/api/episodes/{id}/home-log", {
        params: { path: { id: episodeId } },
        body: { log: { day: row.day, done, pain: null, nextMorning: null, remark: null }, version },
      }),
    );
  const asPlanned = useMutation({
    mutationFn: async () => {
      const rows: HomeRow[] = [];
      for (const row of open) {
        const done = log.columns
          .filter((c) => row.planned.includes(c.planItemId))
          .map((c) => ({ planItemId: c.planItemId, side: c.side, reps: c.perDay }));
        await put(row, done, row.version);
        rows.push(row);
        setFilled([...rows]);
      }
    },
    onSettled: () => {
      setAsking(false);
      return refresh();
    },
  });
  // What was written since on such a day stays: only days as they were filled are emptied.
  const undo = useMutation({
    mutationFn: async () => {
      for (const row of filled) {
        const now = log.rows.find((r) => r.day === row.day);
        if (now?.log && now.log.pain === null && now.log.nextMorning === null && now.log.remark === null)
          await put(row, [], now.version);
      }
    },
    onSettled: () => {
      setFilled([]);
      return refresh();
    },
  });
  return (
    <Stack $gap={2} role="region" aria-label={say("visits.home-log")}>
      <Row $between>
        <h2>{say("visits.at-home-since-from", { from: dayWords(log.from) })}</h2>
        {filled.length > 0 ? (
          <Row $gap={2}>
            <Quiet role="status">
              {say("visits.filled-filled-filled-as-planned", { filled: filled.length })}
            </Quiet>
            <Button $quiet $small isDisabled={undo.isPending} onPress={() => undo.mutate()}>
              {say("visits.undo")}
            </Button>
          </Row>
        ) : asking ? (
          <Row $gap={2} role="group" aria-label={say("visits.all-open-days-as-planned")}>
            <span>
              {say("visits.did-the-client-say-that", {
                open:
                  open.length === 1
                    ? say("visits.this-day-was")
                    : say("visits.these-open-days-were", { open: open.length }),
              })}
            </span>
            <Button $small isDisabled={asPlanned.isPending} onPress={() => asPlanned.mutate()}>
              {say("visits.yes-as-planned")}
            </Button>
            <Button $quiet $small onPress={() => setAsking(false)}>
              {say("visits.no")}
            </Button>
          </Row>
        ) : (
          open.length > 0 && (
            <Button $quiet $small onPress={() => setAsking(true)}>
              {say("visits.all-open-days-as-planned-2")}
            </Button>
          )
        )}
      </Row>
      <Small>{say("visits.reps-of-all-sets-of")}</Small>
      <Scroll>
        <table>
          <thead>
            <tr>
              <th>{say("visits.day")}</th>
              <td />
              {log.columns.map((c) => (
                <th key={c.planItemId + c.side} scope="col">
                  {c.name} {c.side !== "both" && <SideTag side={c.side} />}{" "}
                  <Quiet>{say("visits.of-perday", { perDay: c.perDay })}</Quiet>
                </th>
              ))}
              <th scope="col">{say("visits.pain-doing-it")}</th>
              <th scope="col">{say("visits.next-morning-2")}</th>
              <th scope="col">{say("visits.remark")}</th>
            </tr>
          </thead>
          <tbody>
            {log.rows.map((row) => (
              <HomeLogRow
                key={`${row.day} ${row.version}`}
                row={row}
                columns={log.columns}
                episodeId={episodeId}
                onStored={refresh}
              />
            ))}
          </tbody>
        </table>
      </Scroll>
      <ProblemNote error={asPlanned.error ?? undo.error} />
      <HomeFile episodeId={episodeId} visitId={visitId} onTaken={refresh} />
    </Stack>
  );
}
