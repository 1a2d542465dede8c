import { useLibrary } from "../api/queries";
import { Button } from "../controls/Button";
import { Checkbox, Choice, NumberField } from "../controls/fields";
import { Row, Ruled, Small, Stack } from "../controls/layout";
import type { IntakePart } from "./IntakeFields";
import { today } from "../api/clinicTime";
import { DayField } from "../controls/DateField";
import { say } from "../words/say";

const days = [1, 2, 3, 4, 5, 6, 7].map((n) => ({ value: String(n), label: n }));

/** What the client wants, has and can at home: goals, minutes, days, equipment, days away, and the school. */
export function HomeFields(props: IntakePart) {
  const { draft, onChange, problem } = props;
  const { data: library } = useLibrary();
  return (
    <Ruled>
      <Stack $gap={4}>
        <h2>{say("intake.at-home")}</h2>
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
        <Goals {...props} />
        <Equipment {...props} />
        <Away {...props} />
        <Choice
          label={say("intake.policy")}
          value={draft.policyId}
          onChange={(policyId) => onChange({ ...draft, policyId })}
          options={(library?.policies ?? []).map((p) => ({ value: p.id, label: p.name }))}
          hint={library?.policies.find((p) => p.id === draft.policyId)?.why}
          error={problem?.field("policyId")}
        />
      </Stack>
    </Ruled>
  );
}

const toggled = (list: string[], id: string, on: boolean) =>
  on ? [...list, id] : list.filter((other) => other !== id);

function Goals({ draft, onChange }: IntakePart) {
  const { data: library } = useLibrary();
  const goals = draft.goals ?? [];
  return (
    <div role="group" aria-labelledby="goals-title">
      <h3 id="goals-title">{say("intake.what-the-client-wants-to")}</h3>
      {library?.goals.map((goal) => (
        <Checkbox
          key={goal.id}
          selected={goals.includes(goal.id)}
          onChange={(on) => onChange({ ...draft, goals: toggled(goals, goal.id, on) })}
        >
          {goal.name} <Small as="span">{goal.such}</Small>
        </Checkbox>
      ))}
    </div>
  );
}

function Equipment({ draft, onChange }: IntakePart) {
  const { data: library } = useLibrary();
  const have = draft.equipment;
  const common = (library?.equipment ?? []).filter((e) => e.common).map((e) => e.id);
  return (
    <div role="group" aria-labelledby="equipment-title">
      <h3 id="equipment-title">{say("intake.what-is-at-hand-at")}</h3>
      <Choice
        label={say("intake.asked")}
        value={have ? "asked" : "open"}
        onChange={(v) => onChange({ ...draft, equipment: v === "asked" ? common : null })}
        options={[
          { value: "open", label: say("intake.not-asked-anything-goes") },
          { value: "asked", label: say("intake.only-this") },
        ]}
      />
      {have &&
        library?.equipment.map((piece) => (
          <Checkbox
            key={piece.id}
            selected={have.includes(piece.id)}
            onChange={(on) => onChange({ ...draft, equipment: toggled(have, piece.id, on) })}
          >
            {piece.name}
          </Checkbox>
        ))}
    </div>
  );
}

function Away({ draft, onChange, problem }: IntakePart) {
  const away = draft.away ?? [];
  const put = (index: number, change: { from?: string; to?: string }) =>
    onChange({ ...draft, away: away.map((a, i) => (i === index ? { ...a, ...change } : a)) });
  return (
    <div role="group" aria-labelledby="away-title">
      <h3 id="away-title">{say("intake.away")}</h3>
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
