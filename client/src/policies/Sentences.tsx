import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog } from "react-aria-components";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { SentenceView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { say } from "../words/say";

/** What letters and home programmes say, sentence by sentence, to be written the clinic's own way. */
export function Sentences() {
  const { data } = useQuery({
    queryKey: keys.sentences,
    queryFn: () => got(api.GET("/api/clinic/sentences")),
  });
  const [open, setOpen] = useState<string | null>(null);
  if (!data) return null;
  const chosen = data.find((sentence) => sentence.id === open);
  return (
    <section aria-label={say("policies.letters-and-home-programmes")}>
      <Stack $gap={3}>
        <h2>{say("policies.letters-and-home-programmes")}</h2>
        <Small>{say("policies.sentences-may-be-changed")}</Small>
        <Group
          title={say("policies.on-letters")}
          of={data.filter((s) => s.on === "letter")}
          onOpen={setOpen}
        />
        <Group
          title={say("policies.on-home-programmes")}
          of={data.filter((s) => s.on === "home")}
          onOpen={setOpen}
        />
      </Stack>
      <Veil isOpen={chosen !== undefined} onOpenChange={() => setOpen(null)} isDismissable>
        <Sheet $wide>
          <Dialog aria-label={say("policies.sentence")}>
            {chosen && (
              <Editor key={chosen.id + chosen.version} sentence={chosen} onDone={() => setOpen(null)} />
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </section>
  );
}

function Group(props: { title: string; of: SentenceView[]; onOpen: (id: string) => void }) {
  return (
    <details>
      <summary style={{ cursor: "pointer", fontWeight: 600, minHeight: 44, paddingTop: 10 }}>
        {props.title}
      </summary>
      <ul>
        {props.of.map((sentence) => (
          <li key={sentence.id} style={{ padding: "6px 0" }}>
            <Row $between style={{ flexWrap: "nowrap" }}>
              <span>
                {sentence.example}
                {sentence.version > 0 && (
                  <Quiet> {say("policies.your-own", { by: sentence.changedBy ?? "" })}</Quiet>
                )}
              </span>
              <Button
                $quiet
                $small
                aria-label={say("policies.change-sentence", { example: sentence.example })}
                onPress={() => props.onOpen(sentence.id)}
              >
                {say("policies.change")}
              </Button>
            </Row>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Editor({ sentence, onDone }: { sentence: SentenceView; onDone: () => void }) {
  const queries = useQueryClient();
  const [text, setText] = useState(sentence.text);
  const path = { id: sentence.id };
  const done = async () => {
    await queries.invalidateQueries();
    onDone();
  };
  const preview = useMutation({
    mutationFn: () =>
      got(api.POST("/api/clinic/sentences/{id}/preview", { params: { path }, body: { text } })),
  });
  const save = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/clinic/sentences/{id}", {
          params: { path },
          body: { text, version: sentence.version },
        }),
      ),
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: () => got(api.DELETE("/api/clinic/sentences/{id}", { params: { path } })),
    onSuccess: done,
  });
  const error = save.error ?? preview.error ?? restore.error;
  const field = error instanceof ProblemError ? error.field("text") : undefined;
  return (
    <Stack $gap={3}>
      <h2>{say("policies.sentence")}</h2>
      <TextField
        long
        label={say("policies.sentence")}
        value={text}
        onChange={(now) => {
          setText(now);
          preview.reset();
          save.reset();
        }}
        error={field}
      />
      <Small>
        {sentence.values.length > 0
          ? say("policies.may-be-filled-in", { names: sentence.values.join(", ") })
          : say("policies.nothing-is-filled-in")}
      </Small>
      {preview.data && (
        <div role="status">
          <Small>
            {preview.data.client
              ? say("policies.as-client-reads-it", { client: preview.data.client })
              : say("policies.with-made-up-values")}
          </Small>
          {preview.data.lines.map((line) => (
            <p key={line}>
              <strong>{line}</strong>
            </p>
          ))}
        </div>
      )}
      {!field && <ProblemNote error={error} />}
      <Row>
        <Button isDisabled={text === sentence.text || save.isPending} onPress={() => save.mutate()}>
          {say("policies.save-sentence")}
        </Button>
        <Button $quiet isDisabled={preview.isPending} onPress={() => preview.mutate()}>
          {say("policies.show-as-it-would-read")}
        </Button>
        {sentence.version > 0 && (
          <Button $quiet onPress={() => restore.mutate()}>
            {say("policies.use-the-original")}
          </Button>
        )}
        <Button $quiet onPress={onDone}>
          {say("policies.close")}
        </Button>
      </Row>
    </Stack>
  );
}
