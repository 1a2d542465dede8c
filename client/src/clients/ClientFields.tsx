import type { ProblemError } from "../api/client";
import type { ClientForm } from "../api/types";
import { DayField } from "../controls/DateField";
import { TextField } from "../controls/fields";
import { Columns, Ruled, Stack } from "../controls/layout";
import { contactWords } from "../frame/fieldWords";
import { WithPicker } from "../frame/WithPicker";
import { say } from "../words/say";

/** Who somebody is and how to reach them. */
export function ClientFields(props: {
  form: ClientForm;
  onChange: (form: ClientForm) => void;
  problem: ProblemError | null;
}) {
  const { form, problem } = props;
  const set = (change: Partial<ClientForm>) => props.onChange({ ...form, ...change });
  const guardian = form.guardian ?? { name: "", relation: null, phone: null };
  const setGuardian = (change: Partial<typeof guardian>) => {
    const next = { ...guardian, ...change };
    set({ guardian: next.name || next.relation || next.phone ? next : null });
  };
  return (
    <Columns style={{ gap: 32 }}>
      <Stack $gap={4}>
        <TextField
          label={say("clients.name")}
          value={form.name}
          onChange={(name) => set({ name })}
          error={problem?.field("name")}
        />
        <DayField
          far
          label={say("clients.birth-date")}
          value={form.birthDate}
          onChange={(birthDate) => set({ birthDate })}
          error={problem?.field("birthDate")}
        />
        <TextField
          label={say("clients.number")}
          hint={say("clients.number-hint")}
          value={form.number ?? ""}
          onChange={(number) => set({ number: number || null })}
          error={problem?.field("number")}
        />
        <WithPicker
          label={say("clients.in-charge")}
          nobody={say("clients.nobody-named")}
          value={form.inChargeId ?? null}
          onPick={(inChargeId) => set({ inChargeId })}
        />
        <TextField
          long
          label={say("clients.desk-notes")}
          hint={say("clients.nothing-clinical")}
          value={form.deskNotes ?? ""}
          onChange={(deskNotes) => set({ deskNotes })}
          error={problem?.field("deskNotes")}
        />
      </Stack>
      <Stack $gap={4}>
        <TextField
          type="tel"
          label={contactWords.phone}
          value={form.phone ?? ""}
          onChange={(phone) => set({ phone })}
          error={problem?.field("phone")}
        />
        <TextField
          type="email"
          label={contactWords.email}
          value={form.email ?? ""}
          onChange={(email) => set({ email })}
          error={problem?.field("email")}
        />
        <TextField
          long
          label={contactWords.address}
          value={form.address ?? ""}
          onChange={(address) => set({ address })}
          error={problem?.field("address")}
        />
        <Ruled>
          <Stack $gap={4}>
            <h2>{contactWords.guardian}</h2>
            <TextField
              label={say("clients.guardian-name")}
              value={guardian.name}
              onChange={(name) => setGuardian({ name })}
              error={problem?.field("guardian.name")}
            />
            <Columns $at="1fr 1fr" style={{ gap: 16 }}>
              <TextField
                label={contactWords.relation}
                value={guardian.relation ?? ""}
                onChange={(relation) => setGuardian({ relation })}
                error={problem?.field("guardian.relation")}
              />
              <TextField
                type="tel"
                label={contactWords.guardianPhone}
                value={guardian.phone ?? ""}
                onChange={(phone) => setGuardian({ phone })}
                error={problem?.field("guardian.phone")}
              />
            </Columns>
          </Stack>
        </Ruled>
      </Stack>
    </Columns>
  );
}
