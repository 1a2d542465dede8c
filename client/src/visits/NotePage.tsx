import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { dayWords, momentWords } from "../api/clinicTime";
import { keys, useStart } from "../api/queries";
import type { NoteText, NoteView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, TextField } from "../controls/fields";
import { Columns, Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { headingWords } from "../frame/fieldWords";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

/** So long after the last letter a note is saved by itself. */
const restMs = 1200;

const headings = [
  ["subjective", headingWords.subjective, say("visits.subjective-hint")],
  ["objective", headingWords.objective, say("visits.objective-hint")],
  ["assessment", headingWords.assessment, say("visits.assessment-hint")],
  ["plan", headingWords.plan, say("visits.plan-hint")],
] as const;

/** The note of a visit, saved as it is written, and those before it. */
export function NotePage() {
  const { episodeId, visitId } = useVisit();
  const { data, error } = useQuery({
    queryKey: keys.note(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/note", { params: { path: { visitId } } })),
    enabled: visitId !== "",
  });
  if (!data) return <Waits error={error} />;
  return (
    <Columns $at="minmax(0, 1.5fr) minmax(260px, 1fr)">
      <Editor key={visitId} visitId={visitId} episodeId={episodeId} stored={data} />
      <Before episodeId={episodeId} visitId={visitId} />
    </Columns>
  );
}

/** Room to write. */
const Paper = styled(Stack)<{ $tall: boolean }>`
  textarea {
    min-height: ${({ $tall }) => ($tall ? "320px" : "84px")};
    field-sizing: content;
  }
`;

type Saving = "saved" | "writing" | "saving";

/** Where the tab keeps what is not saved yet, for whoever wrote it. */
const placeOf = (visitId: string, by: string) => `note ${visitId} ${by}`;

/** What a reload cut off before it was saved; null where nothing was, or somebody else has written since. */
function leftUnsaved(place: string, version: number): NoteText | null {
  const kept = sessionStorage.getItem(place);
  if (!kept) return null;
  const left = JSON.parse(kept) as { text: NoteText; version: number };
  return left.version === version ? left.text : null;
}

/** Writes by itself a moment after the last letter, and what is left when the page is. A signed note is written only when asked. */
function useNote(visitId: string, episodeId: string, stored: NoteView) {
  const queries = useQueryClient();
  const place = placeOf(visitId, useStart().data?.signedInAs ?? "");
  const [left] = useState(() => leftUnsaved(place, stored.version));
  const [text, setText] = useState<NoteText>(left ?? stored.text);
  const [view, setView] = useState(stored);
  const [saving, setSaving] = useState<Saving>(left ? "writing" : "saved");
  const [error, setError] = useState<unknown>(null);
  const latest = useRef({ text: left ?? stored.text, version: stored.version });
  const chain = useRef(Promise.resolve());
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const take = (note: NoteView) => {
    latest.current.version = note.version;
    setView(note);
    queries.setQueryData(keys.note(visitId), note);
    void queries.invalidateQueries({ queryKey: keys.notes(episodeId) });
  };
  const write = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    chain.current = chain.current.then(async () => {
      const sent = latest.current.text;
      setSaving("saving");
      try {
        take(
          await got(
            api.PUT("/api/visits/{visitId}/note", {
              params: { path: { visitId } },
              body: { text: sent, version: latest.current.version },
            }),
          ),
        );
        setError(null);
        if (latest.current.text === sent) {
          setSaving("saved");
          sessionStorage.removeItem(place);
        }
      } catch (problem) {
        setError(problem);
        setSaving("writing");
      }
    });
    return chain.current;
  };
  const writing = useRef(write);
  useEffect(() => {
    writing.current = write;
  });
  // What was not saved yet is saved when the page is left, and what a reload cut off when it is back.
  useEffect(() => {
    if (left && !stored.signedAt) void writing.current();
    return () => {
      if (timer.current) void writing.current();
    };
  }, [left, stored.signedAt]);
  const change = (next: NoteText) => {
    latest.current.text = next;
    sessionStorage.setItem(place, JSON.stringify({ text: next, version: latest.current.version }));
    setText(next);
    setSaving("writing");
    if (timer.current) clearTimeout(timer.current);
    if (!view.signedAt) timer.current = setTimeout(() => void writing.current(), restMs);
  };
  const sign = async () => {
    await write();
    try {
      take(
        await got(
          api.POST("/api/visits/{visitId}/note/signature", {
            params: { path: { visitId } },
            body: { version: latest.current.version },
          }),
        ),
      );
      setError(null);
    } catch (problem) {
      setError(problem);
    }
  };
  /** Goes on from what a colleague wrote meanwhile. */
  const goOn = (theirs: NoteView) => {
    take(theirs);
    sessionStorage.removeItem(place);
    setText(theirs.text);
    latest.current.text = theirs.text;
    setSaving("saved");
    setError(null);
  };
  const overwrite = (theirs: NoteView) => {
    latest.current.version = theirs.version;
    setError(null);
    void write();
  };
  return { text, change, view, saving, error, write, sign, goOn, overwrite };
}

const savingWords: Record<Saving, string> = {
  saved: say("visits.note-saved"),
  writing: say("visits.note-not-saved-yet"),
  saving: say("visits.note-saving"),
};

function Editor(props: { visitId: string; episodeId: string; stored: NoteView }) {
  const note = useNote(props.visitId, props.episodeId, props.stored);
  const { text, view } = note;
  // A draft is saved on the way out; what was signed is not written over by leaving.
  useUnsaved(!!view.signedAt && note.saving !== "saved");
  const problem = note.error instanceof ProblemError ? note.error : null;
  const theirs = problem?.status === 409 ? (problem.current as NoteView | null) : null;
  const signed = view.signedAt !== null && view.signedAt !== undefined;
  return (
    <Paper $gap={4} $tall={!text.headings}>
      <Row $between>
        <h1>{say("visits.note")}</h1>
        <span role="status">
          <Quiet>{savingWords[note.saving]}</Quiet>
        </span>
      </Row>
      {signed && (
        <Note>
          {say("visits.signed-by", { by: view.signedBy ?? "", at: momentWords(view.signedAt ?? "") })}{" "}
          {say("visits.signed-means")}
        </Note>
      )}
      <Choice
        label={say("visits.note-as")}
        value={text.headings ? "headings" : "free"}
        onChange={(as) => note.change({ ...text, headings: as === "headings" })}
        options={[
          { value: "free", label: say("visits.free-text") },
          { value: "headings", label: say("visits.four-headings") },
        ]}
      />
      {text.headings ? (
        headings.map(([part, label, hint]) => (
          <TextField
            key={part}
            long
            label={label}
            hint={hint}
            value={text[part]}
            onChange={(value) => note.change({ ...text, [part]: value })}
            error={problem?.field(`text.${part}`)}
          />
        ))
      ) : (
        <TextField
          long
          label={say("visits.note-text")}
          value={text.free}
          onChange={(free) => note.change({ ...text, free })}
          error={problem?.field("text.free")}
        />
      )}
      {theirs ? (
        <Note grave>
          <p>{problem?.message}</p>
          <Said text={theirs.text} />
          <Row style={{ marginTop: 8 }}>
            <Button $quiet $small onPress={() => note.goOn(theirs)}>
              {say("visits.go-on-from-theirs")}
            </Button>
            <Button $quiet $small onPress={() => note.overwrite(theirs)}>
              {say("visits.keep-mine")}
            </Button>
          </Row>
        </Note>
      ) : (
        problem && problem.fields.length === 0 && <ProblemNote error={problem} />
      )}
      <Row>
        {signed ? (
          <Button isDisabled={note.saving === "saved"} onPress={() => void note.write()}>
            {say("visits.save-the-change")}
          </Button>
        ) : (
          <Button onPress={() => void note.sign()}>{say("visits.sign")}</Button>
        )}
        <Small>{signed ? say("visits.a-change-needs-a-reason") : say("visits.sign-means")}</Small>
      </Row>
    </Paper>
  );
}

function Said({ text }: { text: NoteText }) {
  const parts = text.headings
    ? headings.map(([part, label]) => [label, text[part]] as const).filter(([, words]) => words.trim())
    : [["", text.free] as const];
  return (
    <>
      {parts.map(([label, words]) => (
        <p key={label} style={{ whiteSpace: "pre-wrap" }}>
          {label && <strong>{label}: </strong>}
          {words}
        </p>
      ))}
    </>
  );
}

function Before(props: { episodeId: string; visitId: string }) {
  const { data, error } = useQuery({
    queryKey: keys.notes(props.episodeId),
    queryFn: () => got(api.GET("/api/episodes/{id}/notes", { params: { path: { id: props.episodeId } } })),
  });
  const others = (data ?? []).filter((n) => n.visitId !== props.visitId);
  return (
    <section aria-label={say("visits.notes-of-other-visits")}>
      <Stack $gap={3}>
        <h2>{say("visits.notes-of-other-visits")}</h2>
        <ProblemNote error={error} />
        {data && others.length === 0 && <Small>{say("visits.no-other-note")}</Small>}
        {others.map((n) => (
          <Ruled key={n.visitId}>
            <strong>
              {say("visits.visit-number", { number: n.number })} <Quiet>{dayWords(n.day)}</Quiet>
            </strong>
            <Said text={n.note.text} />
            <Small>
              {n.note.signedAt
                ? say("visits.signed-by", { by: n.note.signedBy ?? "", at: momentWords(n.note.signedAt) })
                : say("visits.draft-of", { by: n.note.writtenBy ?? "" })}
            </Small>
          </Ruled>
        ))}
      </Stack>
    </section>
  );
}
