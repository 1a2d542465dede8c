import { useLibrary } from "../api/queries";
import type { ProblemError } from "../api/client";
import type { IntakeForm } from "../api/types";
import { RedFlags, flagsAnswered } from "../frame/RedFlags";
import { Checkbox, Choice, NumberField, Scale, TextField } from "../controls/fields";
import { Columns, Ruled, Stack } from "../controls/layout";
import { HomeFields } from "./HomeFields";
import { PrecautionFields } from "./PrecautionFields";
import { DayField } from "../controls/DateField";
import { say } from "../words/say";

/** The form as it is filled in: numbers may still be missing. */
export type Draft = Omit<IntakeForm, "pain" | "settleHours"> & {
  pain: { now: number | null; worst: number | null; usual: number | null };
  settleHours: number | null;
};

export const emptyDraft = (policyId: string): Draft => ({
  name: "",
  birthDate: "",
  complaint: "",
  pain: { now: null, worst: null, usual: null },
  settleHours: null,
  wakesAtNight: false,
  precautions: [],
  dangerSigns: [],
  minutesPerDay: 15,
  daysPerWeek: 5,
  goals: [],
  equipment: null,
  away: [],
  policyId,
  sex: null,
  heightCm: null,
  massKg: null,
  flagsAsked: null,
});

/** The first thing that still has to be answered, in the words of its field; null when nothing is missing. */
export function missing(draft: Draft, firstVisit = true): string | null {
  if (!draft.name.trim()) return say("intake.the-name");
  if (!draft.birthDate) return say("intake.the-birth-date");
  if (!draft.complaint.trim()) return say("intake.the-main-complaint");
  if (draft.pain.now === null) return say("intake.the-pain-now");
  if (draft.pain.worst === null) return say("intake.the-worst-pain");
  if (draft.pain.usual === null) return say("intake.the-usual-pain");
  if (draft.settleHours === null) return say("intake.how-long-it-stays-stirred");
  // At later visits the check-in asks them.
  if (firstVisit && !flagsAnswered(draft.dangerSigns, draft.flagsAsked ?? null))
    return say("intake.the-red-flags");
  return null;
}

export function toForm(draft: Draft): IntakeForm {
  const { now, worst, usual } = draft.pain;
  return {
    ...draft,
    pain: { now: now ?? 0, worst: worst ?? 0, usual: usual ?? 0 },
    settleHours: draft.settleHours ?? 0,
  };
}

const settling = [
  { value: "1", label: say("intake.within-an-hour") },
  { value: "6", label: say("intake.the-same-day") },
  { value: "20", label: say("intake.by-next-morning") },
  { value: "36", label: say("intake.longer-than-a-day") },
];

/** The shown answer that an exact number of hours falls under. */
const settlingChoice = (hours: number | null) =>
  hours === null ? null : hours <= 1 ? "1" : hours <= 12 ? "6" : hours < 24 ? "20" : "36";

export interface IntakePart {
  draft: Draft;
  onChange: (draft: Draft) => void;
  problem: ProblemError | null;
}

export function IntakeFields(props: IntakePart) {
  return (
    <Columns>
      <Stack $gap={5}>
        <Flags {...props} />
        <Who {...props} />
      </Stack>
      <Stack $gap={5}>
        <Hurts {...props} />
        <PrecautionFields {...props} />
        <HomeFields {...props} />
      </Stack>
    </Columns>
  );
}

function Flags({ draft, onChange }: IntakePart) {
  const { data: library } = useLibrary();
  return (
    <RedFlags
      flags={(library?.dangerSigns ?? []).filter((sign) => !sign.laterVisits)}
      signs={draft.dangerSigns}
      asked={draft.flagsAsked ?? null}
      onChange={(dangerSigns, flagsAsked) => onChange({ ...draft, dangerSigns, flagsAsked })}
    >
      {say("intake.any-of-these-stops-the")}
    </RedFlags>
  );
}

function Who({ draft, onChange, problem }: IntakePart) {
  const set = (change: Partial<Draft>) => onChange({ ...draft, ...change });
  return (
    <Ruled>
      <Stack $gap={4}>
        <h2>{say("intake.who")}</h2>
        <TextField
          label={say("intake.name")}
          value={draft.name}
          onChange={(name) => set({ name })}
          error={problem?.field("name")}
        />
        <DayField
          far
          label={say("intake.birth-date")}
          value={draft.birthDate}
          onChange={(birthDate) => set({ birthDate })}
          error={problem?.field("birthDate")}
        />
        <Choice
          label={say("intake.sex-for-the-body-tables")}
          value={draft.sex ?? "open"}
          onChange={(v) => set({ sex: v === "open" ? null : v })}
          options={[
            { value: "female", label: say("intake.female") },
            { value: "male", label: say("intake.male") },
            { value: "open", label: say("intake.left-open") },
          ]}
        />
        <Columns $at="1fr 1fr" style={{ gap: 16 }}>
          <NumberField
            label={say("intake.height-cm")}
            value={draft.heightCm ?? null}
            onChange={(heightCm) => set({ heightCm })}
            error={problem?.field("heightCm")}
          />
          <NumberField
            label={say("intake.mass-kg")}
            value={draft.massKg ?? null}
            onChange={(massKg) => set({ massKg })}
            error={problem?.field("massKg")}
          />
        </Columns>
      </Stack>
    </Ruled>
  );
}

function Hurts({ draft, onChange, problem }: IntakePart) {
  const pain = (change: Partial<Draft["pain"]>) => onChange({ ...draft, pain: { ...draft.pain, ...change } });
  return (
    <section aria-labelledby="hurts-title">
      <Stack $gap={4}>
        <h2 id="hurts-title">{say("intake.what-hurts")}</h2>
        <TextField
          long
          label={say("intake.main-complaint")}
          hint={say("intake.where-what-brings-it-on")}
          value={draft.complaint}
          onChange={(complaint) => onChange({ ...draft, complaint })}
          error={problem?.field("complaint")}
        />
        <Scale
          label={say("intake.pain-now")}
          value={draft.pain.now}
          onChange={(now) => pain({ now })}
          error={problem?.field("pain.now")}
        />
        <Scale
          label={say("intake.worst-last-week")}
          value={draft.pain.worst}
          onChange={(worst) => pain({ worst })}
        />
        <Scale
          label={say("intake.usual-last-week")}
          value={draft.pain.usual}
          onChange={(usual) => pain({ usual })}
        />
        <Choice
          label={say("intake.once-stirred-up-it-settles")}
          value={settlingChoice(draft.settleHours)}
          onChange={(v) => onChange({ ...draft, settleHours: Number(v) })}
          options={settling}
          error={problem?.field("settleHours")}
        />
        <Checkbox
          selected={draft.wakesAtNight}
          onChange={(wakesAtNight) => onChange({ ...draft, wakesAtNight })}
        >
          {say("intake.it-wakes-the-client-at")}
        </Checkbox>
      </Stack>
    </section>
  );
}
