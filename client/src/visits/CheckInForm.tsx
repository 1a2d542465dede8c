import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { useLibrary } from "../api/queries";
import type { CheckIn, HomeTraining, LegReach, Settling, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, Scale } from "../controls/fields";
import { Bar, Columns, Note, Pair, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { flagsAnswered, RedFlags } from "../frame/RedFlags";
import { useUnsaved } from "../frame/unsaved";
import { useHold } from "../frame/useHold";
import { useReport } from "../frame/useReport";
import { HomeLog, useHomeLog } from "./HomeLog";
import { Places } from "../controls/Tabs";
import { DayField } from "../controls/DateField";
import { say } from "../words/say";

/** What is asked at the start of every later visit, as it stands on the screen: nothing is asked until it is answered. */
export type Asked = Omit<CheckIn, "dangerSigns" | "settledHours">;

export const notAsked: Asked = {
  painNow: null,
  usualPain: null,
  nextDayPain: null,
  lastTrained: null,
  settled: null,
  wakesAtNight: null,
  leg: null,
  legFurther: null,
  flagsAsked: null,
  soreness: null,
  home: null,
};

/** The answers that were sent; of one that an earlier version kept, what it did not ask is not asked. */
const answersOf = (sent: CheckIn): Asked => ({
  ...notAsked,
  ...Object.fromEntries(
    (Object.keys(notAsked) as (keyof Asked)[]).map((question) => [question, sent[question] ?? null]),
  ),
});

/** What nobody asked, in the words of the questions. */
export function openQuestions(asked: Asked): string[] {
  const open: [string, unknown][] = [
    [say("visits.pain-now"), asked.painNow],
    [say("visits.usual-pain"), asked.usualPain],
    [say("visits.the-morning-after"), asked.nextDayPain],
    [say("visits.how-it-settled"), asked.settled],
    [say("visits.night-waking"), asked.wakesAtNight],
    [say("visits.the-left-leg"), asked.leg?.left],
    [say("visits.the-right-leg"), asked.leg?.right],
    [say("visits.training-at-home"), asked.home],
  ];
  return open.filter(([, answer]) => answer === null || answer === undefined).map(([words]) => words);
}

const settling: { value: Settling; label: string }[] = [
  { value: "not-raised", label: say("visits.was-not-stirred-up") },
  { value: "within-an-hour", label: say("visits.within-an-hour") },
  { value: "same-day", label: say("visits.the-same-day") },
  { value: "next-morning", label: say("visits.by-next-morning") },
  { value: "longer-than-a-day", label: say("visits.longer-than-a-day") },
];

const reaches: { value: LegReach; label: string }[] = [
  { value: "none", label: say("visits.none") },
  { value: "buttock", label: say("visits.buttock") },
  { value: "thigh", label: say("visits.thigh") },
  { value: "below-knee", label: say("visits.below-the-knee") },
];

const homes: { value: HomeTraining; label: string }[] = [
  { value: "done", label: say("visits.as-planned-2") },
  { value: "partly", label: say("visits.partly") },
  { value: "not-done", label: say("visits.not-done") },
];

const order = ["flags", "questions", "log"] as const;
type Step = (typeof order)[number];

/** The questions of a visit, in short steps; those of one that was sent come filled in, to be put right. */
export function CheckInForm(props: {
  episodeId: string;
  visit: VisitView;
  lastPain: number | null;
  /** Pain now from which the client's policy lets nobody train; null: not known here, the session tells it. */
  noTrainingFrom: number | null;
  onDone: () => void;
}) {
  const { visit, episodeId } = props;
  const { data: library } = useLibrary();
  const queries = useQueryClient();
  const hold = useHold();
  const [signs, setSigns] = useState<string[]>([]);
  const sent = visit.checkIn;
  const [asked, setAsked] = useState<Asked>(sent ? answersOf(sent) : notAsked);
  const [first] = useState(asked);
  const set = (change: Partial<Asked>) => setAsked((before) => ({ ...before, ...change }));
  // What is put right is most often an answer.
  const [step, setStep] = useState<Step>(props.visit.checkIn ? "questions" : "flags");
  const save = useMutation({
    mutationFn: () => {
      const checkIn: CheckIn = {
        ...asked,
        legFurther: false,
        settledHours: null,
        dangerSigns: sent?.dangerSigns ?? [],
      };
      const body = { checkIn, version: visit.version };
      const path = { visitId: visit.id };
      return hold(() => got(api.PUT("/api/visits/{visitId}/check-in", { params: { path }, body })), {
        ...body,
        kind: "check-in",
        episodeId,
        visitId: visit.id,
        before: sent,
      });
    },
    onSuccess: async (stored) => {
      if (stored) await queries.invalidateQueries();
      props.onDone();
    },
    // What was refused is shown where it stands.
    onError: () => setStep("questions"),
  });
  // A red flag does not wait for the other questions.
  const report = useReport(episodeId);
  const changed = JSON.stringify(asked) !== JSON.stringify(first) || signs.length > 0;
  // What is on its way arrives, wherever somebody goes meanwhile.
  useUnsaved(changed && !save.isPending && !save.isSuccess && !report.isPending && !report.isSuccess);
  const problem = save.error instanceof ProblemError ? save.error : null;
  const answered = flagsAnswered(signs, asked.flagsAsked ?? null);
  const open = openQuestions(asked);
  const flags = [...(library?.dangerSigns ?? [])].sort(
    (a, b) => Number(b.laterVisits) - Number(a.laterVisits),
  );
  const next = order[order.indexOf(step) + 1];
  const log = useHomeLog(visit.id).data;
  const asksLog = library !== undefined && signs.length === 0 && (log?.rows.length ?? 0) > 0;
  return (
    <Stack $gap={3}>
      <Places
        label={say("visits.steps-of-the-check-in")}
        head={<h1>{sent ? say("visits.put-the-check-in-right") : say("visits.since-last-time")}</h1>}
        open={step}
        onOpen={(id) => setStep(id as Step)}
        places={[
          {
            id: "flags",
            name: say("visits.step-flags"),
            content: (
              <RedFlags
                flags={flags}
                signs={signs}
                asked={asked.flagsAsked ?? null}
                onChange={(now, flagsAsked) => {
                  setSigns(now);
                  set({ flagsAsked });
                }}
              >
                {say("visits.anything-new-since-the-last")}
              </RedFlags>
            ),
          },
          {
            id: "questions",
            name: say("visits.step-questions"),
            content: <Questions asked={asked} set={set} lastPain={props.lastPain} problem={problem} />,
          },
          ...(asksLog
            ? [
                {
                  id: "log",
                  name: say("visits.step-log"),
                  content: <HomeLog episodeId={episodeId} visitId={visit.id} library={library} />,
                },
              ]
            : []),
        ]}
      />
      <ProblemNote error={save.error ?? report.error} />
      {signs.length === 0 &&
        asked.painNow !== null &&
        props.noTrainingFrom !== null &&
        asked.painNow >= props.noTrainingFrom && (
          <Note grave>{say("visits.pain-painnow-no-training-today", { painNow: asked.painNow })}</Note>
        )}
      <Bar>
        {signs.length > 0 ? (
          <Button isDisabled={report.isPending} onPress={() => report.mutate(signs)}>
            {say("visits.record-the-red-flag-and")}
          </Button>
        ) : (
          <>
            {next && (next !== "log" || asksLog) && (
              <Button isDisabled={!answered} onPress={() => setStep(next)}>
                {say("visits.next")}
              </Button>
            )}
            <Button
              $quiet={step === "flags"}
              isDisabled={!answered || save.isPending}
              onPress={() => save.mutate()}
            >
              {sent ? say("visits.store-what-was-put-right") : say("visits.begin-the-session")}
            </Button>
          </>
        )}
        {sent && (
          <Button $quiet onPress={props.onDone}>
            {say("visits.leave-it-as-it-was")}
          </Button>
        )}
        {!answered && <Quiet>{say("visits.still-to-ask-the-red")}</Quiet>}
        {answered && signs.length === 0 && open.length > 0 && (
          <Small>{say("visits.not-asked-and-kept-so", { open: open.join(", ") })}</Small>
        )}
      </Bar>
    </Stack>
  );
}

/** What is asked as 0 to 10. */
const scales = (lastPain: number | null) =>
  [
    {
      asks: "painNow",
      label: say("visits.pain-now-lastpain", {
        lastPain: lastPain === null ? "" : say("visits.last-time-it-was-lastpain", { lastPain }),
      }),
    },
    { asks: "usualPain", label: say("visits.usual-since-last-time") },
    { asks: "nextDayPain", label: say("visits.the-morning-after-the-last") },
    { asks: "soreness", label: say("visits.sore-muscles-told-apart-from") },
  ] as const;

function Questions(props: {
  asked: Asked;
  set: (change: Partial<Asked>) => void;
  lastPain: number | null;
  problem: ProblemError | null;
}) {
  const { asked, set, problem } = props;
  return (
    <Columns style={{ gap: "12px 32px" }}>
      <Stack $gap={3}>
        {scales(props.lastPain).map(({ asks, label }) => (
          <Scale
            key={asks}
            label={label}
            value={asked[asks] ?? null}
            onChange={(value) => set({ [asks]: value })}
            onClear={() => set({ [asks]: null })}
            error={problem?.field(`checkIn.${asks}`)}
          />
        ))}
      </Stack>
      <Stack $gap={3}>
        <Choice
          snug
          label={say("visits.after-the-last-work-it")}
          value={asked.settled ?? null}
          onChange={(settled) => set({ settled })}
          onClear={() => set({ settled: null })}
          options={settling}
        />
        <Pair>
          <Choice
            snug
            label={say("visits.at-night")}
            value={asked.wakesAtNight == null ? null : asked.wakesAtNight ? "wakes" : "sleeps"}
            onChange={(v) => set({ wakesAtNight: v === "wakes" })}
            onClear={() => set({ wakesAtNight: null })}
            options={[
              { value: "sleeps", label: say("visits.sleeps-through") },
              { value: "wakes", label: say("visits.it-wakes-the-client") },
            ]}
          />
          <Choice
            snug
            label={say("visits.training-at-home-2")}
            value={asked.home ?? null}
            onChange={(home) => set({ home })}
            onClear={() => set({ home: null })}
            options={homes}
          />
        </Pair>
        <Pair>
          <Legs asked={asked} set={set} />
        </Pair>
        <DayField
          label={say("visits.last-day-the-exercises-were")}
          hint={say("visits.leave-open-if-not-known")}
          value={asked.lastTrained ?? ""}
          onChange={(day) => set({ lastTrained: day || null })}
          error={problem?.field("checkIn.lastTrained")}
        />
      </Stack>
    </Columns>
  );
}

/** Pain in each leg; a leg that nobody asked about stays "not asked" beside the other. */
function Legs(props: { asked: Asked; set: (change: Partial<Asked>) => void }) {
  const { asked, set } = props;
  return (["left", "right"] as const).map((side) => (
    <Choice
      key={side}
      snug
      label={say("visits.pain-in-the-side-leg", { side })}
      value={asked.leg?.[side] ?? null}
      onChange={(reach) => set({ leg: { left: null, right: null, ...asked.leg, [side]: reach } })}
      onClear={() => set({ leg: { left: null, right: null, ...asked.leg, [side]: null } })}
      options={reaches}
    />
  ));
}
