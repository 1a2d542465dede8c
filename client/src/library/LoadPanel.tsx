import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import styled from "styled-components";
import { api, got } from "../api/client";
import { findRung } from "../api/queries";
import type { Library, LoadAnswer, LoadChanges, RungPage, Side } from "../api/types";
import { ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { Slider } from "../controls/Slider";
import { LoadSlope } from "./LoadSlope";
import { heightWords, massWords } from "../controls/personSize";
import { say } from "../words/say";

const Directions = styled.table`
  width: 100%;
  font-variant-numeric: tabular-nums;
  th {
    text-align: start;
    font-weight: 400;
  }
  thead th {
    color: ${({ theme }) => theme.colour.grey};
    font-size: 0.875rem;
  }
  td {
    text-align: end;
    white-space: nowrap;
  }
  th,
  td {
    padding: 4px 0 4px ${({ theme }) => theme.space(3)};
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
  th:first-child {
    padding-inline-start: 0;
  }
  tbody tr:first-child {
    font-weight: 700;
    th {
      font-weight: 700;
    }
  }
`;

/** How hard the rung is for this body, live under the sliders, and where it stands on its ladder. */
export function LoadPanel(props: {
  page: RungPage;
  side: Side;
  library: Library;
  changes: LoadChanges;
  onChange: (changes: LoadChanges) => void;
}) {
  const { page, side, changes } = props;
  const load = useLoad(page, side, useDeferredValue(changes));
  const main = load.data?.directions[0];
  return (
    <Stack $gap={4}>
      <div>
        <h2>{say("library.how-hard-it-is")}</h2>
        <Small>
          {say("library.for-body", {
            body:
              page.clientName && !load.data?.typicalBody ? page.clientName : say("library.a-typical-body"),
            size: load.data
              ? say("library.of-size", {
                  height: heightWords(load.data.statureMetres),
                  mass: massWords(load.data.massKilograms),
                })
              : "",
          })}
        </Small>
      </div>
      {page.slope.length > 0 && (
        <div>
          <Small>{say("library.this-ladder", { direction: main ? `, ${main.words}` : "" })}</Small>
          <LoadSlope page={page} library={props.library} now={main?.newtonMetres ?? null} />
        </div>
      )}
      <Sliders {...props} load={load.data} />
      <ProblemNote error={load.error} />
      {load.data && <DirectionTable load={load.data} page={page} library={props.library} />}
      <Small>{load.data?.note}</Small>
    </Stack>
  );
}

const useLoad = (page: RungPage, side: Side, changes: LoadChanges) =>
  useQuery({
    queryKey: ["load", page.rungId, page.presentRungId, page.body, side, changes],
    queryFn: () =>
      got(
        api.POST("/api/compute/load", {
          body: { body: page.body, rungId: page.rungId, side, changes, presentRungId: page.presentRungId },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });

function Sliders(props: {
  page: RungPage;
  changes: LoadChanges;
  onChange: (changes: LoadChanges) => void;
  load?: LoadAnswer;
}) {
  const { changes, onChange } = props;
  const { choices } = props.page;
  const range = changes.range ?? 1;
  const heel = props.load?.load.reachedCm;
  return (
    <Stack $gap={1}>
      {choices.range && (
        <Slider
          label={say("library.range")}
          value={Math.round(range * 100)}
          onChange={(v) => onChange({ ...changes, range: v / 100 })}
          min={20}
          max={100}
          step={5}
          words={`${Math.round(range * 100)} %${heel ? say("library.heel-heel-cm-up", { heel: heel.toFixed(0) }) : ""}`}
        />
      )}
      {choices.kneeBend !== null && choices.kneeBend < 60 && (
        <Slider
          label={say("library.free-knee-bent-at-least")}
          value={changes.kneeBend ?? Math.round(choices.kneeBend / 5) * 5}
          onChange={(v) => onChange({ ...changes, kneeBend: v })}
          min={0}
          max={90}
          step={5}
          words={`${changes.kneeBend ?? Math.round(choices.kneeBend)}°`}
        />
      )}
      {choices.counterHeight !== null && (
        <Slider
          label={say("library.height-of-the-counter")}
          value={Math.round((changes.counterHeight ?? choices.counterHeight) * 100)}
          onChange={(v) => onChange({ ...changes, counterHeight: v / 100 })}
          min={45}
          max={120}
          step={5}
          words={say("library.counterheight-cm", {
            counterHeight: Math.round((changes.counterHeight ?? choices.counterHeight) * 100),
          })}
        />
      )}
      {choices.heldMass !== null && (
        <Slider
          label={say("library.weight-in-the-hands")}
          value={changes.heldMass ?? choices.heldMass}
          onChange={(v) => onChange({ ...changes, heldMass: v })}
          min={0}
          max={20}
          step={0.5}
          words={say("library.heldmass-kg", { heldMass: changes.heldMass ?? choices.heldMass })}
        />
      )}
    </Stack>
  );
}

function DirectionTable(props: { load: LoadAnswer; page: RungPage; library: Library }) {
  const { page } = props;
  const present = page.presentRungId && page.presentRungId !== page.rungId ? page.presentRungId : null;
  return (
    <Directions>
      <thead>
        <tr>
          <th scope="col">{say("library.asks-for")}</th>
          <th scope="col">{say("library.n-m")}</th>
          <th scope="col">{say("library.of-full")}</th>
          {present && (
            <th scope="col">
              {say("library.against-rung", {
                rung: findRung(props.library, present).rung.name.toLowerCase(),
              })}
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {props.load.directions.map((d) => (
          <tr key={d.direction + d.side}>
            <th scope="row">{d.words}</th>
            <td>{d.newtonMetres.toFixed(d.newtonMetres < 10 ? 1 : 0)}</td>
            <td>
              {d.percentOfFull === null ? (
                <Quiet>{say("library.new")}</Quiet>
              ) : (
                `${d.percentOfFull.toFixed(0)} %`
              )}
            </td>
            {present && (
              <td>
                {d.percentMoreThanPresent === null ? (
                  <Quiet>{say("library.new")}</Quiet>
                ) : (
                  signed(d.percentMoreThanPresent)
                )}
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </Directions>
  );
}

const signed = (percent: number) =>
  `${percent > 0.5 ? "+" : percent < -0.5 ? "−" : "±"}${Math.abs(percent).toFixed(0)} %`;
