import styled from "styled-components";
import { useLibrary } from "../api/queries";
import type { ProblemError } from "../api/client";
import type { IntakeForm } from "../api/types";
import { RedFlags, flagsAnswered } from "../frame/RedFlags";
import { Checkbox, Choice, Scale, TextField } from "../controls/fields";
import { HeightField, MassField } from "../controls/personSize";
import { Columns, Pair, Stack } from "../controls/layout";
import { TimeFields, WantsFields } from "./HomeFields";
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

export const settlingWords = (hours: number | null) =>
  settling.find((s) => s.value === settlingChoice(hours))?.label ?? null;

export interface IntakePart {
  draft: Draft;
  onChange: (draft: Draft) => void;
  problem: ProblemError | null;
}

/** First who it is and whether anything is dangerous: before all else. */
export function FirstStep(props: IntakePart) {
  return (
    <Stack $gap={4}>
      <Who {...props} />
      <Flags {...props} />
    </Stack>
  );
}

/** What hurts, and what is to be minded. */
export function HurtStep(props: IntakePart) {
  return (
    <Columns $at="minmax(0, 1fr) minmax(0, 1fr)" style={{ gap: "8px 32px" }}>
      <Hurts {...props} />
      <Stack $gap={2}>
        <Settles {...props} />
        <PrecautionFields {...props} />
      </Stack>
    </Columns>
  );
}

/** The body, and what the client wants, has and can at home. */
export function HomeStep(props: IntakePart) {
  return (
    <Columns $at="minmax(0, 0.8fr) minmax(0, 1fr)" style={{ gap: "12px 32px" }}>
      <Stack $gap={3}>
        <BodyFields {...props} />
        <TimeFields {...props} />
      </Stack>
      <WantsFields {...props} />
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

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(4)};
  max-width: 720px;
  @media (max-width: 37.5em) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

function Who({ draft, onChange, problem }: IntakePart) {
  const set = (change: Partial<Draft>) => onChange({ ...draft, ...change });
  return (
    <Line>
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
    </Line>
  );
}

function BodyFields({ draft, onChange, problem }: IntakePart) {
  const set = (change: Partial<Draft>) => onChange({ ...draft, ...change });
  return (
    <>
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
      <Pair>
        <HeightField
          value={draft.heightCm ?? null}
          onChange={(heightCm) => set({ heightCm })}
          error={problem?.field("heightCm")}
        />
        <MassField
          value={draft.massKg ?? null}
          onChange={(massKg) => set({ massKg })}
          error={problem?.field("massKg")}
        />
      </Pair>
    </>
  );
}

function Hurts({ draft, onChange, problem }: IntakePart) {
  const pain = (change: Partial<Draft["pain"]>) => onChange({ ...draft, pain: { ...draft.pain, ...change } });
  return (
    <section aria-label={say("intake.what-hurts")}>
      <Stack $gap={2}>
        <TextField
          long
          rows={2}
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
      </Stack>
    </section>
  );
}

function Settles({ draft, onChange, problem }: IntakePart) {
  return (
    <div>
      <Choice
        snug
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
    </div>
  );
}
