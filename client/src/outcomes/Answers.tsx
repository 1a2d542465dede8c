import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { Library, OutcomeAnswers, OutcomesView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, NumberField, Scale, TextField } from "../controls/fields";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { useUnsaved } from "../frame/unsaved";
import { say } from "../words/say";

const most = 5;

/** Asked at this visit: the activities the client named, each 0 to 10, and a disability total filled in elsewhere. */
export function Answers(props: { visitId: string; view: OutcomesView; library: Library }) {
  const { view, visitId, library } = props;
  const queries = useQueryClient();
  const [scores, setScores] = useState<{ name: string; value: number | null }[]>(() =>
    (view.answers?.activities ?? view.named.map((name) => ({ name, value: null }))).map((a) => ({ ...a })),
  );
  const [name, setName] = useState("");
  const [kind, setKind] = useState(view.answers?.disability?.measureId ?? view.disabilityMeasure ?? null);
  const [total, setTotal] = useState<number | null>(view.answers?.disability?.total ?? null);
  const written = JSON.stringify({ scores, name, kind, total });
  const [first] = useState(written);
  const store = useMutation({
    mutationFn: () => {
      const answers: OutcomeAnswers = {
        activities: scores.flatMap((s) => (s.value === null ? [] : [{ name: s.name, value: s.value }])),
        disability: kind !== null && total !== null ? { measureId: kind, total } : null,
      };
      return got(
        api.PUT("/api/visits/{visitId}/answers", {
          params: { path: { visitId } },
          body: { answers, version: view.answersVersion },
        }),
      );
    },
    onSuccess: (stored) => queries.setQueryData(keys.outcomes(visitId), stored),
  });
  useUnsaved(written !== first && !store.isPending);
  const problem = store.error instanceof ProblemError ? store.error : null;
  const totals = library.outcomes.filter((m) => m.id.startsWith("disability"));
  const measure = totals.find((m) => m.id === kind);
  return (
    <Stack $gap={4} role="region" aria-label={say("outcomes.asked-at-this-visit")}>
      <h2>{say("outcomes.asked-at-this-visit")}</h2>
      {scores.length === 0 && <p>{say("outcomes.ask-for-three-to-five")}</p>}
      {scores.map((s, i) => (
        <Scale
          key={s.name}
          label={say("outcomes.s-0-cannot-10-as", { s: s.name })}
          value={s.value}
          error={problem?.field(`answers.activities[${i}].value`)}
          onChange={(value) => setScores(scores.map((x) => (x.name === s.name ? { ...x, value } : x)))}
        />
      ))}
      {scores.length < most && (
        <Row $gap={2} style={{ alignItems: "end" }}>
          <div style={{ flex: 1 }}>
            <TextField label={say("outcomes.another-activity")} value={name} onChange={setName} />
          </div>
          <Button
            $quiet
            $small
            isDisabled={name.trim() === "" || scores.some((s) => s.name === name.trim())}
            onPress={() => {
              setScores([...scores, { name: name.trim(), value: null }]);
              setName("");
            }}
          >
            {say("outcomes.add")}
          </Button>
        </Row>
      )}
      <Choice
        label={say("outcomes.a-back-disability-total-if")}
        value={kind}
        onChange={(picked) => {
          setKind(picked);
          setTotal(null);
        }}
        options={totals.map((m) => ({ value: m.id, label: m.name.replace("Back disability, ", "") }))}
      />
      {measure && (
        <NumberField
          label={say("outcomes.total-min-to-max", { min: measure.min, max: measure.max })}
          value={total}
          onChange={setTotal}
          min={measure.min}
          max={measure.max}
          error={problem?.field("answers.disability.total")}
        />
      )}
      <ProblemNote error={store.error} />
      <Row>
        <Button isDisabled={store.isPending} onPress={() => store.mutate()}>
          {say("outcomes.keep-the-answers")}
        </Button>
        {store.isSuccess && <Small role="status">{say("outcomes.kept")}</Small>}
      </Row>
    </Stack>
  );
}
