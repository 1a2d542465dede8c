import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, ProblemError } from "../api/client";
import { timeWords } from "../api/clinicTime";
import { useDay } from "../api/queries";
import { useOutbox } from "../capture/OutboxContext";
import { ProblemNote, Quiet } from "../controls/layout";
import { Picker } from "../controls/Picker";
import { useVisit } from "../frame/useVisit";
import { say } from "../words/say";

/** A trial that was taken under the wrong client goes to one of the other visits of the day, with everything that belongs to it. */
export function MoveTrial(props: { trialId: string; reason: string; onMoved: () => void }) {
  const { visitId } = useVisit();
  const { data: day } = useDay();
  const outbox = useOutbox();
  const queries = useQueryClient();
  const move = useMutation({
    mutationFn: async (toVisitId: string) => {
      // What waits here belongs to it too.
      await outbox.flush();
      return got(
        api.POST("/api/visits/{visitId}/moved-trials", {
          params: { path: { visitId } },
          body: { trialIds: [props.trialId], toVisitId, reason: props.reason },
        }),
      );
    },
    onSuccess: async () => {
      await queries.invalidateQueries();
      props.onMoved();
    },
  });
  const others = (day?.visits ?? []).filter((v) => v.visitId !== visitId);
  if (others.length === 0) return null;
  // With the reason it is one press.
  if (!props.reason) return <Quiet>{say("screening.why-first")}</Quiet>;
  const problem = move.error instanceof ProblemError ? move.error : null;
  return (
    <>
      <Picker
        label={say("screening.it-was-another-client")}
        hideLabel
        placeholder={say("screening.it-was-another-client")}
        onPick={(to) => move.mutate(to)}
        options={others.map((v) => ({ value: v.visitId, label: `${timeWords(v.plannedAt)} ${v.name}` }))}
        dashed
      />
      <ProblemNote error={problem} />
    </>
  );
}
