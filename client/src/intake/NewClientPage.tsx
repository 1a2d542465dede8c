import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { api, got, ProblemError } from "../api/client";
import { keys, useLibrary, useStart } from "../api/queries";
import { Page, ProblemNote } from "../controls/layout";
import { Alike } from "../frame/Alike";
import { type Draft, emptyDraft, missing, toForm } from "./IntakeFields";
import { IntakeSteps } from "./IntakeSteps";
import { useDraft } from "./useDraft";
import { say } from "../words/say";

export function NewClientPage() {
  const { data: library } = useLibrary();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [draft, setDraft, forget] = useDraft<Draft>(
    // Half a client of one colleague is not the next one's.
    `new-client ${useStart().data?.signedInAs ?? ""}`,
    emptyDraft(library?.policies[0]?.id ?? ""),
  );
  // A second tap, or one after an answer that got lost, is the same client.
  const [id] = useState(() => uuid());
  const create = useMutation({
    mutationFn: (whole: Draft) => got(api.POST("/api/clients", { body: { ...toForm(whole), id } })),
    onSuccess: (opened, whole) => {
      forget();
      void queries.invalidateQueries({ queryKey: keys.day });
      const next = whole.dangerSigns.length > 0 ? "ask" : "neutral";
      void navigate(`/episodes/${opened.episodeId}/visits/${opened.visitId}/${next}`);
    },
  });
  if (draft === null) return <Page />;
  return (
    <Page>
      <IntakeSteps
        draft={draft}
        onChange={setDraft}
        problem={create.error instanceof ProblemError ? create.error : null}
        head={<h1>{say("intake.new-client")}</h1>}
        lacks={missing(draft)}
        done={say("intake.open-the-episode")}
        pending={create.isPending}
        onDone={() => create.mutate(draft)}
        more={
          <>
            <Alike name={draft.name} birthDate={draft.birthDate} />
            <ProblemNote error={create.error} />
            <Link to="/" style={{ marginInlineStart: "auto" }}>
              {say("intake.back-to-the-day")}
            </Link>
          </>
        }
      />
    </Page>
  );
}
