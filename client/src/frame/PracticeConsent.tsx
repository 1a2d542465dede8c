import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { EpisodeView } from "../api/types";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** Whether colleagues may rate the client's traces and kept pictures, without a name: asked, and taken back. */
export function PracticeConsent({ episode }: { episode: EpisodeView }) {
  const queries = useQueryClient();
  const tell = useMutation({
    mutationFn: (given: boolean) =>
      got(
        api.PUT("/api/episodes/{id}/practice-consent", {
          params: { path: { id: episode.id } },
          body: { given },
        }),
      ),
    onSuccess: (stored) => queries.setQueryData(keys.episode(episode.id), stored),
  });
  const given = episode.practiceConsent;
  return (
    <Stack $gap={2} role="group" aria-label={say("frame.for-practice")}>
      <Small>
        {given === true
          ? say("frame.practice-agreed")
          : given === false
            ? say("frame.practice-refused")
            : say("frame.practice-not-asked")}
      </Small>
      <Row>
        {given !== true && (
          <Button $quiet $small isDisabled={tell.isPending} onPress={() => tell.mutate(true)}>
            {say("frame.practice-agrees")}
          </Button>
        )}
        {given !== false && (
          <Button $quiet $small isDisabled={tell.isPending} onPress={() => tell.mutate(false)}>
            {given === true ? say("frame.practice-no-longer") : say("frame.practice-does-not")}
          </Button>
        )}
      </Row>
      <ProblemNote error={tell.error} />
    </Stack>
  );
}
