import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { findRung } from "../api/queries";
import type { Decision, DecisionNumber, Library, NumberKind } from "../api/types";
import { Choice, NumberField } from "../controls/fields";
import { ProblemNote, Row } from "../controls/layout";
import { outcomeWords } from "../controls/words";
import { say } from "../words/say";

/** One number changed, and the decision that would follow; nothing is stored. */
export function WhatIf(props: {
  visitId: string;
  decision: Decision;
  numbers: DecisionNumber[];
  library: Library;
}) {
  const { visitId, decision, numbers } = props;
  const [kind, setKind] = useState<NumberKind | null>(null);
  const [value, setValue] = useState<number | null>(null);
  const number = numbers.find((n) => n.kind === kind);
  const asked = number && value !== null && value !== number.now;
  const { data, error } = useQuery({
    queryKey: ["what-if", visitId, decision.planItemId, decision.side, kind, value],
    queryFn: () =>
      got(
        api.POST("/api/visits/{visitId}/decisions/what-if", {
          params: { path: { visitId } },
          body: { planItemId: decision.planItemId, side: decision.side, kind: kind!, value: value! },
        }),
      ),
    enabled: asked === true,
    placeholderData: (previous) => previous,
  });
  if (numbers.length === 0) return null;
  const other = asked ? data?.decision : undefined;
  return (
    <div role="group" aria-label={say("progression.what-if")} style={{ paddingTop: 8 }}>
      <Choice
        label={say("progression.what-if-side", {
          side: decision.side === "both" ? "" : say("progression.on-the-side", { side: decision.side }),
        })}
        value={kind}
        onChange={(picked) => {
          setKind(picked);
          setValue(numbers.find((n) => n.kind === picked)?.now ?? null);
        }}
        options={numbers.map((n) => ({ value: n.kind, label: n.name.toLowerCase() }))}
      />
      {number && (
        <Row $gap={4} style={{ paddingTop: 8 }}>
          <div style={{ width: 190 }}>
            <NumberField
              label={say("progression.were-it-was-now", { now: number.now ?? say("progression.not-known") })}
              value={value}
              onChange={setValue}
              min={number.min}
              max={number.max}
              step={number.step}
            />
          </div>
          <p role="status" style={{ flex: 1 }}>
            {other && (
              <>
                <strong>{outcomeWords[other.outcome]}</strong>
                {other.rungId !== decision.rungId &&
                  `, ${findRung(props.library, other.rungId).rung.name.toLowerCase()}`}
                . {other.evidence.join(" ")}
              </>
            )}
          </p>
        </Row>
      )}
      <ProblemNote error={error} />
    </div>
  );
}
