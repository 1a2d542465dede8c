import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { api, got } from "../api/client";
import { dayWords, momentWords } from "../api/clinicTime";
import { keys, useLibrary } from "../api/queries";
import type { Library, RecordChange } from "../api/types";
import { Empty, ProblemNote, Quiet, Ruled, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { Table } from "../controls/Table";
import { useVisit } from "../frame/useVisit";
import { say } from "../words/say";
import { fieldWords, valueWords } from "./changeWords";

/** The same columns for every change: the eye runs down them. */
const Changed = styled(Table)`
  table-layout: fixed;
  margin-bottom: ${({ theme }) => theme.space(2)};
  th:first-child {
    width: 24%;
  }
`;

const Was = styled.del`
  color: ${({ theme }) => theme.colour.grey};
`;

/** What was amended in a record, the latest first: what stood there struck through, what stands now, by whom, when and why. */
export function AmendmentsPage() {
  const { episode } = useVisit();
  const { data: library } = useLibrary();
  const id = episode?.id ?? "";
  const { data, error } = useQuery({
    queryKey: keys.amendments(id),
    queryFn: () => got(api.GET("/api/episodes/{id}/amendments", { params: { path: { id } } })),
    enabled: id !== "",
    staleTime: 0,
  });
  if (!library) return null;
  if (!data) return <ProblemNote error={error} />;
  if (data.length === 0) {
    return (
      <Empty title={say("amendments.nothing-was-amended")}>
        <p>{say("amendments.where-to-amend")}</p>
      </Empty>
    );
  }
  return (
    <Stack $gap={4}>
      <h1>{say("amendments.amendments")}</h1>
      <Small>{say("amendments.nothing-is-written-over")}</Small>
      {data.map((change, i) => (
        <Change key={`${change.at} ${i}`} change={change} library={library} />
      ))}
    </Stack>
  );
}

function Change({ change, library }: { change: RecordChange; library: Library }) {
  return (
    <Ruled>
      <article aria-label={nameOf(change, library)}>
        <h2 style={{ fontSize: "1.125rem" }}>
          {nameOf(change, library)} {change.side && change.side !== "both" && <SideTag side={change.side} />}{" "}
          <Quiet style={{ fontWeight: 400 }}>{whereOf(change)}</Quiet>
        </h2>
        {change.fields.length > 0 && (
          <Changed>
            <thead>
              <tr>
                <th>{say("amendments.what")}</th>
                <th>{say("amendments.stood-there")}</th>
                <th>{say("amendments.stands-now")}</th>
              </tr>
            </thead>
            <tbody>
              {change.fields.map((field) => (
                <tr key={field.name}>
                  <td>{fieldWords(field.name)}</td>
                  <td>
                    <Was>{valueWords(field.before, library)}</Was>
                  </td>
                  <td>{valueWords(field.after, library)}</td>
                </tr>
              ))}
            </tbody>
          </Changed>
        )}
        <p>
          {change.reason ?? <Quiet>{say("amendments.without-a-reason")}</Quiet>}{" "}
          <Quiet>{say("amendments.by-at", { by: change.by, at: momentWords(change.at) })}</Quiet>
        </p>
      </article>
    </Ruled>
  );
}

const entries: Record<RecordChange["entry"], string> = {
  client: say("amendments.client"),
  intake: say("amendments.intake"),
  neutral: say("amendments.neutral"),
  "check-in": say("amendments.check-in"),
  reference: say("amendments.reference"),
  answers: say("amendments.answers"),
  "home-day": say("amendments.home-day"),
  letter: say("amendments.letter"),
  trace: say("amendments.trace"),
  photo: say("amendments.photo"),
  trial: say("amendments.trial"),
  moved: say("amendments.moved"),
  note: say("amendments.note"),
  chart: say("amendments.chart"),
  dated: say("amendments.dated"),
  filed: say("amendments.filed"),
};

function nameOf(change: RecordChange, library: Library) {
  const rung = library.ladders.flatMap((l) => l.rungs).find((r) => r.id === change.rungId);
  return rung ? `${entries[change.entry]}: ${rung.name}` : entries[change.entry];
}

function whereOf(change: RecordChange) {
  if (change.day) return dayWords(change.day);
  return change.visitNumber ? say("amendments.visit-number", { number: change.visitNumber }) : "";
}
