import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { Label, TextArea, TextField as AriaTextField } from "react-aria-components";
import styled, { createGlobalStyle } from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys, useClinic, useLibrary } from "../api/queries";
import type { Letter, LetterView } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { lettersOf, textOf } from "./letterText";
import { PaperChoice, type Paper as PaperName } from "../frame/papers";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

const PrintPage = createGlobalStyle`
  @page { margin: 18mm; }
  @media print {
    main { padding: 0 !important; max-width: none !important; }
    textarea { border: 0 !important; padding: 0 !important; }
  }
`;

const Paper = styled.div`
  max-width: 800px;
  padding: ${({ theme }) => theme.space(6)};
  background: ${({ theme }) => theme.colour.sheet};
  display: grid;
  gap: ${({ theme }) => theme.space(3)};
  @media print {
    padding: 0;
  }
`;

const Area = styled(TextArea)`
  width: 100%;
  padding: ${({ theme }) => theme.space(2)};
  border: 1px solid ${({ theme }) => theme.colour.rule};
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  resize: none;
  field-sizing: content;
  min-height: 2.4em;
`;

/** A letter to the referrer, written from the record; every part can be edited before it goes out. */
export function LetterPage() {
  const { episode, visitId } = useVisit();
  const { data, error } = useQuery({
    queryKey: keys.letter(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/letter", { params: { path: { visitId } } })),
    // One that was looked at before something was decided or discharged is not shown again while a newer one is written.
    gcTime: 0,
  });
  if (!episode) return null;
  if (!data) return <Waits error={error} />;
  return <Editor key={`${visitId} ${data.version}`} visitId={visitId} view={data} />;
}

function Editor({ visitId, view }: { visitId: string; view: LetterView }) {
  const queries = useQueryClient();
  const { data: clinic } = useClinic();
  const { data: library } = useLibrary();
  const [letter, setLetter] = useState<Letter>(view.letter);
  const [paper, setPaper] = useState<PaperName>("a4");
  const store = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/visits/{visitId}/letter", {
          params: { path: { visitId } },
          body: { letter, version: view.version },
        }),
      ),
    onSuccess: (stored) => queries.setQueryData(keys.letter(visitId), stored),
  });
  const changed = JSON.stringify(letter) !== JSON.stringify(view.letter);
  useUnsaved(changed);
  const conflict = store.error instanceof ProblemError && store.error.status === 409;
  return (
    <Stack $gap={4}>
      <PrintPage />
      <div className="screen-only">
        <Row $between $gap={4} style={{ alignItems: "flex-end" }}>
          <h1>{say("letters.letter")}</h1>
          <Link to="../discharge">{say("letters.discharge")}</Link>
          <PaperChoice value={paper} onChange={setPaper} />
          <Row $gap={3}>
            <Button isDisabled={!changed || store.isPending} onPress={() => store.mutate()}>
              {say("letters.keep-my-changes")}
            </Button>
            <Button $quiet isDisabled={changed} onPress={() => window.print()}>
              {say("letters.print")}
            </Button>
            {changed ? (
              <Small>{say("letters.keep-the-changes-first-then")}</Small>
            ) : (
              <a href={`/api/visits/${visitId}/letter.pdf?paper=${paper}`} target="_blank" rel="noreferrer">
                {say("letters.pdf")}
              </a>
            )}
          </Row>
        </Row>
        {view.version > 0 && (
          <Note>
            {say("letters.edited-by-editedby-the-record", { editedBy: view.editedBy ?? "" })}{" "}
            <Button $quiet $small onPress={() => setLetter({ ...view.fresh, to: letter.to })}>
              {say("letters.write-it-anew-from-the")}
            </Button>
          </Note>
        )}
        <ProblemNote error={store.error} />
        {conflict && (
          <Button
            $quiet
            $small
            onPress={() => void queries.invalidateQueries({ queryKey: keys.letter(visitId) })}
          >
            {say("letters.show-the-other-one")}
          </Button>
        )}
      </div>
      <Paper>
        {clinic?.name && <strong>{clinic.name}</strong>}
        <Field
          label={say("letters.to")}
          value={letter.to}
          onChange={(to) => setLetter({ ...letter, to })}
          placeholder={say("letters.to-whom-it-goes")}
        />
        <Field
          label={say("letters.about")}
          value={letter.about}
          bold
          onChange={(about) => setLetter({ ...letter, about })}
        />
        {letter.parts.map((part, i) => (
          <section key={part.heading} aria-label={part.heading}>
            <h2>{part.heading}</h2>
            <Field
              label={part.heading}
              value={textOf(part.paragraphs)}
              onChange={(text) =>
                setLetter({
                  ...letter,
                  parts: letter.parts.map((p, j) => (j === i ? { ...p, paragraphs: lettersOf(text) } : p)),
                })
              }
            />
          </section>
        ))}
        <Small>{library?.cautions.letterSupports}</Small>
      </Paper>
    </Stack>
  );
}

function Field(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  bold?: boolean;
  placeholder?: string;
}) {
  return (
    <AriaTextField value={props.value} onChange={props.onChange}>
      <Label>
        <HiddenVisually>{props.label}</HiddenVisually>
      </Label>
      <Area style={{ fontWeight: props.bold ? 700 : 400 }} placeholder={props.placeholder} />
    </AriaTextField>
  );
}
