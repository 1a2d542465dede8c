import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { findRung, keys, useLibrary } from "../api/queries";
import type { RecordedItem, RecordedReading, RecordedView } from "../api/types";
import { Button } from "../controls/Button";
import { Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { say } from "../words/say";
import { RatePhoto } from "./RatePhoto";
import { RateTrace } from "./RateTrace";
import { RecordedReport } from "./RecordedReport";

/** A session on recorded traces and photographs: what is to be rated next or, when all is, how far the team agrees. */
export function RecordedPage() {
  const { sessionId } = useParams() as { sessionId: string };
  const { data: view, error } = useQuery({
    queryKey: keys.recorded(sessionId),
    queryFn: () => got(api.GET("/api/practice/recorded/{sessionId}", { params: { path: { sessionId } } })),
    staleTime: 0,
  });
  return (
    <Page>
      <PageHead
        title={view?.session.name ?? ""}
        ways={[{ to: "/practice", name: say("practice.practice-room") }]}
      />
      <ProblemNote error={error} />
      {view && (
        <Stack $gap={4}>
          <Small>
            {say("practice.made-by", { name: view.session.madeBy, at: momentWords(view.session.madeAt) })} ·{" "}
            {say("practice.done-by", { done: view.session.done })}
          </Small>
          {view.next ? <Item key={view.next} view={view} id={view.next} /> : <Over view={view} />}
        </Stack>
      )}
    </Page>
  );
}

function Over({ view }: { view: RecordedView }) {
  return view.figures ? (
    <RecordedReport figures={view.figures} />
  ) : (
    <p>{say("practice.nothing-left-of-it")}</p>
  );
}

function Item({ view, id }: { view: RecordedView; id: string }) {
  const queries = useQueryClient();
  const { data: library } = useLibrary();
  const { data: item, error } = useQuery({
    queryKey: keys.recordedItem(id),
    queryFn: () =>
      got(api.GET("/api/practice/recorded/items/{itemId}", { params: { path: { itemId: id } } })),
    retry: false,
  });
  const rate = useMutation({
    mutationFn: (reading: RecordedReading) =>
      got(
        api.POST("/api/practice/recorded/items/{itemId}/rating", {
          params: { path: { itemId: id } },
          body: reading,
        }),
      ),
    onSuccess: (after) => queries.setQueryData(keys.recorded(view.session.id), after),
  });
  const goOn = () => void queries.invalidateQueries({ queryKey: keys.recorded(view.session.id) });
  if (error) {
    return (
      <Stack $gap={3}>
        <ProblemNote error={error} />
        <Row>
          <Button onPress={goOn}>{say("practice.go-on-with-the-next")}</Button>
        </Row>
      </Stack>
    );
  }
  if (!item || !library) return null;
  const { rung } = findRung(library, item.rungId);
  return (
    <Stack $gap={3}>
      <h2>{say("practice.recorded-of", { number: item.number, items: item.items, rung: rung.name })}</h2>
      <Rating item={item} busy={rate.isPending} onRate={(reading) => rate.mutate(reading)} />
      <ProblemNote error={rate.error} />
    </Stack>
  );
}

function Rating(props: { item: RecordedItem; busy: boolean; onRate: (reading: RecordedReading) => void }) {
  const { trace, photo } = props.item;
  if (trace) {
    return (
      <RateTrace trace={trace} busy={props.busy} onRate={(lost) => props.onRate({ lost, photo: null })} />
    );
  }
  return photo ? (
    <RatePhoto
      id={props.item.id}
      photo={photo}
      busy={props.busy}
      onRate={(points) => props.onRate({ lost: null, photo: points })}
    />
  ) : null;
}
