import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { useLibrary } from "../api/queries";
import type { CheckIn, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, Choice, Scale, TextField } from "../controls/fields";
import { HomeLog } from "./HomeLog";
import { Columns, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";

const settling = [
  { value: "none", label: "was not stirred up" },
  { value: "1", label: "within an hour" },
  { value: "6", label: "the same day" },
  { value: "20", label: "by next morning" },
  { value: "36", label: "longer than a day" },
];

/** What is asked at the start of every later visit. */
export function CheckInForm(props: { episodeId: string; visit: VisitView; lastPain: number | null }) {
  const { visit, episodeId } = props;
  const { data: library } = useLibrary();
  const queries = useQueryClient();
  const [signs, setSigns] = useState<string[]>([]);
  const [now, setNow] = useState<number | null>(null);
  const [usual, setUsual] = useState<number | null>(null);
  const [nextDay, setNextDay] = useState<number | null>(null);
  const [settled, setSettled] = useState<string | null>(null);
  const [trained, setTrained] = useState("");
  const save = useMutation({
    mutationFn: () => {
      const checkIn: CheckIn = {
        painNow: now ?? 0,
        usualPain: usual ?? 0,
        nextDayPain: nextDay,
        settledHours: settled === null || settled === "none" ? null : Number(settled),
        dangerSigns: [],
        lastTrained: trained || null,
      };
      return got(
        api.PUT("/api/visits/{visitId}/check-in", {
          params: { path: { visitId: visit.id } },
          body: { checkIn, version: visit.version },
        }),
      );
    },
    onSuccess: () => queries.invalidateQueries(),
  });
  // A danger sign does not wait for the other questions.
  const report = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/episodes/{id}/danger-reports", {
          params: { path: { id: episodeId } },
          body: { dangerSigns: signs },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const lacks =
    now === null ? "pain now" : usual === null ? "usual pain" : settled === null ? "how it settled" : null;
  const toggle = (id: string, on: boolean) => setSigns(on ? [...signs, id] : signs.filter((s) => s !== id));
  return (
    <Stack $gap={5}>
      <h1>Since last time</h1>
      <Columns>
        <section aria-labelledby="danger-title">
          <h2 id="danger-title">Danger signs first</h2>
          <Small>Anything new since the last visit.</Small>
          {[...(library?.dangerSigns ?? [])]
            .sort((a, b) => Number(b.laterVisits) - Number(a.laterVisits))
            .map((sign) => (
              <Checkbox
                key={sign.id}
                selected={signs.includes(sign.id)}
                onChange={(on) => toggle(sign.id, on)}
              >
                {sign.words}
                {sign.sameDay && <strong> · same day</strong>}
              </Checkbox>
            ))}
        </section>
        <Stack $gap={4}>
          <Scale
            label={`Pain now${props.lastPain === null ? "" : `; last time it was ${props.lastPain}`}`}
            value={now}
            onChange={setNow}
            error={problem?.field("checkIn.painNow")}
          />
          <Scale
            label="Usual, since last time"
            value={usual}
            onChange={setUsual}
            error={problem?.field("checkIn.usualPain")}
          />
          <Scale
            label="The morning after the last work (leave open if not known)"
            value={nextDay}
            onChange={setNextDay}
            error={problem?.field("checkIn.nextDayPain")}
          />
          <Choice
            label="After the last work it settled"
            value={settled}
            onChange={setSettled}
            options={settling}
          />
          <TextField
            label="Last day the exercises were done (leave open if not known)"
            type="date"
            value={trained}
            onChange={setTrained}
          />
        </Stack>
      </Columns>
      <ProblemNote error={save.error ?? report.error} />
      <Row>
        {signs.length > 0 ? (
          <Button isDisabled={report.isPending} onPress={() => report.mutate()}>
            Record the danger sign and stop
          </Button>
        ) : (
          <Button isDisabled={lacks !== null || save.isPending} onPress={() => save.mutate()}>
            Begin the session
          </Button>
        )}
        {lacks && signs.length === 0 && <Quiet>Still to ask: {lacks}.</Quiet>}
      </Row>
      {library && signs.length === 0 && (
        <HomeLog episodeId={episodeId} visitId={visit.id} library={library} />
      )}
    </Stack>
  );
}
