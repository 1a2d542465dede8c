import { useLibrary } from "../api/queries";
import { Button } from "../controls/Button";
import { Choice, NumberField, Ticks } from "../controls/fields";
import { Pair, Row, Small, Stack } from "../controls/layout";
import { Picker } from "../controls/Picker";
import type { IntakePart } from "./IntakeFields";
import { today } from "../api/clinicTime";
import { DayField } from "../controls/DateField";
import { say } from "../words/say";

const days = [1, 2, 3, 4, 5, 6, 7].map((n) => ({ value: String(n), label: n }));

/** How much time there is at home, when there is none, and by which policy it is used. */
export function TimeFields(props: IntakePart) {
  const { draft, onChange, problem } = props;
  const { data: library } = useLibrary();
  const policies = library?.policies ?? [];
  return (
    <>
      <Pair $at="170px minmax(0, 1fr)">
        <NumberField
          label={say("intake.minutes-a-day-the-client")}
          value={draft.minutesPerDay}
          min={1}
          max={90}
          onChange={(m) => onChange({ ...draft, minutesPerDay: m ?? 15 })}
          error={problem?.field("minutesPerDay")}
        />
        <Choice
          label={say("intake.days-a-week")}
          tight
          value={String(draft.daysPerWeek ?? 5)}
          onChange={(n) => onChange({ ...draft, daysPerWeek: Number(n) })}
          options={days}
          error={problem?.field("daysPerWeek")}
        />
      </Pair>
      <Pair $at="minmax(0, 1fr) auto">
        <Picker
          label={say("intake.policy")}
          value={draft.policyId}
          onPick={(policyId) => onChange({ ...draft, policyId })}
          options={policies.map((p) => ({ value: p.id, label: p.name }))}
        />
        <Away {...props} />
      </Pair>
      <Small>{policies.find((p) => p.id === draft.policyId)?.why}</Small>
    </>
  );
}

/** What the client wants to do again, and what is at hand for it. */
export function WantsFields({ draft, onChange }: IntakePart) {
  const { data: library } = useLibrary();
  const common = (library?.equipment ?? []).filter((e) => e.common).map((e) => e.id);
  return (
    <Stack $gap={3}>
      <Ticks
        label={say("intake.what-the-client-wants-to")}
        ticked={draft.goals ?? []}
        onChange={(goals) => onChange({ ...draft, goals })}
        options={(library?.goals ?? []).map((g) => ({ id: g.id, name: g.name, hint: g.such }))}
      />
      <Choice
        label={say("intake.what-is-at-hand-at")}
        value={draft.equipment ? "asked" : "open"}
        onChange={(v) => onChange({ ...draft, equipment: v === "asked" ? common : null })}
        options={[
          { value: "open", label: say("intake.not-asked-anything-goes") },
          { value: "asked", label: say("intake.only-this") },
        ]}
      />
      {draft.equipment && (
        <Ticks
          hideLabel
          label={say("intake.at-hand")}
          ticked={draft.equipment}
          onChange={(equipment) => onChange({ ...draft, equipment })}
          options={(library?.equipment ?? []).map((e) => ({ id: e.id, name: e.name }))}
        />
      )}
    </Stack>
  );
}

function Away({ draft, onChange, problem }: IntakePart) {
  const away = draft.away ?? [];
  const put = (index: number, change: { from?: string; to?: string }) =>
    onChange({ ...draft, away: away.map((a, i) => (i === index ? { ...a, ...change } : a)) });
  return (
    <div role="group" aria-label={say("intake.away")}>
      {away.map((stretch, i) => (
        <Row key={i} style={{ alignItems: "flex-end", marginBottom: 8 }}>
          <DayField
            label={say("intake.from")}
            value={stretch.from}
            onChange={(from) => put(i, { from, to: stretch.to < from ? from : stretch.to })}
            error={problem?.field(`away[${i}]`)}
          />
          <DayField label={say("intake.to")} value={stretch.to} onChange={(to) => put(i, { to })} />
          <Button $quiet $small onPress={() => onChange({ ...draft, away: away.filter((_, j) => j !== i) })}>
            {say("intake.take-out")}
          </Button>
        </Row>
      ))}
      <Button
        $quiet
        $small
        onPress={() => {
          const day = today();
          onChange({ ...draft, away: [...away, { from: day, to: day, why: null }] });
        }}
      >
        {say("intake.add-days-away")}
      </Button>
    </div>
  );
}
