import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { keys, useLibrary } from "../api/queries";
import { Button } from "../controls/Button";
import { Page, ProblemNote, Quiet, Row, Stack } from "../controls/layout";
import { emptyDraft, IntakeFields, missing, toForm } from "./IntakeFields";
import { useDraft } from "./useDraft";
import { say } from "../words/say";

export function NewClientPage() {
  const { data: library } = useLibrary();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [draft, setDraft, forget] = useDraft("new-client", emptyDraft(library?.policies[0]?.id ?? ""));
  const create = useMutation({
    mutationFn: () => got(api.POST("/api/clients", { body: toForm(draft) })),
    onSuccess: (opened) => {
      forget();
      void queries.invalidateQueries({ queryKey: keys.day });
      const next = draft.dangerSigns.length > 0 ? "ask" : "neutral";
      void navigate(`/episodes/${opened.episodeId}/visits/${opened.visitId}/${next}`);
    },
  });
  const lacks = missing(draft);
  return (
    <Page>
      <Stack $gap={6}>
        <Row $between>
          <h1>{say("intake.new-client")}</h1>
          <Link to="/">{say("intake.back-to-the-day")}</Link>
        </Row>
        <IntakeFields
          draft={draft}
          onChange={setDraft}
          problem={create.error instanceof ProblemError ? create.error : null}
        />
        <ProblemNote error={create.error} />
        <Row>
          <Button isDisabled={lacks !== null || create.isPending} onPress={() => create.mutate()}>
            {say("intake.open-the-episode")}
          </Button>
          {lacks && <Quiet>{say("intake.still-to-ask-lacks", { lacks })}</Quiet>}
        </Row>
      </Stack>
    </Page>
  );
}
